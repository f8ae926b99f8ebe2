import { XMLBuilder } from "fast-xml-parser";
import type { Place, Stock } from "../stock/stock.js";
import { plainText } from "./escapes.js";

/**
 * A survey as the results of tests: a suite for each rule that is on, a failure for each of its places, and what was held back
 * as skipped. What build servers read.
 */
export function junitReport(
  stock: Stock,
  rules: readonly { readonly id: string; readonly title: string }[],
): string {
  const builder = new XMLBuilder({
    ignoreAttributes: false,
    format: true,
    suppressEmptyNode: true,
    processEntities: true,
  });
  const suites = rules.map(({ id, title }) => {
    const places = stock.places.filter(({ rule }) => rule === id);
    const cases =
      places.length === 0
        ? [{ "@_classname": id, "@_name": inLine(title), "@_time": "0" }]
        : places.map(caseOf);
    return {
      "@_name": id,
      "@_tests": cases.length,
      "@_failures": places.filter(({ what }) => what !== "held back").length,
      "@_errors": 0,
      "@_skipped": places.filter(({ what }) => what === "held back").length,
      "@_time": "0",
      testcase: cases,
    };
  });
  const sum = (key: "@_tests" | "@_failures"): number => suites.reduce((all, suite) => all + suite[key], 0);
  const root = {
    "@_name": "uvran survey",
    "@_tests": sum("@_tests"),
    "@_failures": sum("@_failures"),
    testsuite: suites,
  };
  return `<?xml version="1.0" encoding="UTF-8"?>\n${builder.build({ testsuites: root })}`;
}

/** What an attribute can hold. */
const inLine = (text: string): string => plainText(text).replace(/\s+/g, " ");

function caseOf({ rule, path, line, range, says, trust, what, evidence, cautions, code }: Place): object {
  const lines = code.map((one) => `${one.isHit ? ">" : " "} ${one.line}  ${one.text}`);
  const text = [...lines, ...evidence, ...cautions].join("\n");
  return {
    "@_classname": rule,
    "@_name": inLine(`${path}:${line}:${range.start.column}`),
    "@_file": inLine(path),
    "@_line": line,
    "@_time": "0",
    ...(what === "held back"
      ? { skipped: { "@_message": inLine(says) } }
      : { failure: { "@_message": inLine(says), "@_type": trust ?? what, "#text": plainText(text) } }),
  };
}
