import { readFileSync } from "node:fs";
import { basename, extname } from "node:path";
import { messageOf, Problem, type Journey } from "../node/index.js";
import type { Format, Heading } from "../report/formats/index.js";
import { byPath, plannedText } from "../plan/index.js";
import { fileDiff, type Stock, type Survey } from "../report/index.js";
import type { Edit } from "../rewrite/index.js";
import type { Workspace } from "./workspace.js";

/** The forms of a report that are not made for a terminal, nor for Uvran itself. */
export type Document = Exclude<Format, "text" | "json">;

/** A report in one of the forms that others read. */
export async function documentOf(
  workspace: Workspace,
  survey: Survey,
  stock: Stock,
  heading: Heading,
  format: Document,
  version: string,
): Promise<string> {
  // Only the one form that is asked for is paid for.
  const forms = await import("../report/formats/index.js");
  switch (format) {
    case "markdown":
      return forms.markdownReport(stock, heading);
    case "html":
      return forms.htmlReport(stock, heading);
    case "csv":
      return forms.csvReport(stock);
    case "junit":
      return forms.junitReport(stock, survey.rules, heading);
    case "diff": {
      // Of a proof only what passed.
      const isIn = new Set(
        stock.places
          .filter(({ outcome }) => stock.checks.length === 0 || outcome?.is === "passed")
          .map(({ id }) => id),
      );
      let diff = "";
      for (const [path, changes] of byPath(survey.changes.filter(({ id }) => isIn.has(id)))) {
        const text = workspace.text(path);
        diff += fileDiff(path, text, await plannedText(path, text, changes));
      }
      return diff;
    }
    case "sarif": {
      const edits = new Map<string, readonly Edit[]>();
      // A change in several files is no fix of one of them.
      for (const change of survey.changes)
        if (change.elsewhere.length === 0)
          edits.set(change.id, await workspace.edits(change).catch(() => []));
      return forms.sarifReport(stock, survey.rules, {
        version,
        editsOf: (id) => edits.get(id) ?? [],
        isWritable: (path) => extname(path) !== ".ipynb",
      });
    }
  }
}

/** A survey by the user's own template. Throws a Problem with the template's name for one that cannot be read, or fails. */
export async function documentByTemplate(stock: Stock, heading: Heading, file: string): Promise<string> {
  let template: string;
  try {
    template = readFileSync(file, "utf8");
  } catch (error) {
    throw new Problem(`The template ${file} cannot be read: ${messageOf(error)}`);
  }
  const { templateReport, TemplateError } = await import("../report/formats/template.js");
  try {
    return templateReport(stock, heading, template, /\.html?(\.|$)/.test(basename(file)));
  } catch (error) {
    if (error instanceof TemplateError) throw new Problem(`The template ${file} fails: ${error.message}`);
    throw error;
  }
}

/** The ways of products, in sentences. */
export function journeyLines(journeys: readonly Journey[]): string[] {
  return journeys.flatMap(({ product, from, says, to, steps, disagrees, elsewhere }) => {
    const others = elsewhere.map((one) => `, ${one.version} (${one.says})`).join("");
    const at = from === undefined ? "a version that nothing names" : `${from} (${says})${others}`;
    const through = steps.slice(0, -1);
    const goes =
      steps.length > 0 ? ` to ${to}${through.length > 0 ? `, through ${through.join(", ")}` : ""}` : "";
    const odd =
      disagrees === undefined ? [] : [`The lock file disagrees: ${disagrees} asks for more than it has.`];
    return [steps.length > 0 ? `${product} from ${at}${goes}` : `${product} is at ${at}`, ...odd];
  });
}
