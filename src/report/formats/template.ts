import Handlebars from "handlebars";
import type { Stock } from "../stock/stock.js";
import { csvCell } from "./csv.js";
import { markdownText } from "./markdown.js";
import type { Heading } from "./format.js";

/** A template that cannot be read, or that fails. */
export class TemplateError extends Error {
  override readonly name = "TemplateError";
}

/**
 * A survey in a form of the user's own, by a Handlebars template: it sees the stock and the heading. `{{…}}` is escaped for
 * HTML where `isHtml` says so. Beside what Handlebars has, there are `json`, `csv` and `markdown`, which escape a value.
 */
export function templateReport(stock: Stock, heading: Heading, template: string, isHtml: boolean): string {
  const own = Handlebars.create();
  own.registerHelper("json", (value: unknown) => new own.SafeString(JSON.stringify(value) ?? "null"));
  own.registerHelper(
    "csv",
    (value: unknown) => new own.SafeString(csvCell(typeof value === "number" ? value : String(value ?? ""))),
  );
  own.registerHelper("markdown", (value: unknown) => new own.SafeString(markdownText(String(value ?? ""))));
  try {
    return own.compile(template, { noEscape: !isHtml, strict: true })({ ...stock, ...heading });
  } catch (error) {
    throw new TemplateError(error instanceof Error ? error.message : String(error));
  }
}
