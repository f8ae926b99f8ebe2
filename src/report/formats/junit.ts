import { XMLBuilder } from "fast-xml-parser";
import type { Checked } from "../stock/proved.js";
import type { Place, Stock } from "../stock/stock.js";
import { plainText } from "./escapes.js";
import type { Heading } from "./format.js";

/**
 * A report as the results of tests: a suite for each rule that is on, a failure for each of its places that no proof has passed,
 * and what was held back as skipped; in a proof a suite for its checks. What build servers read.
 */
export function junitReport(
  stock: Stock,
  rules: readonly { readonly id: string; readonly title: string }[],
  { title }: Heading,
): string {
  const builder = new XMLBuilder({
    ignoreAttributes: false,
    format: true,
    suppressEmptyNode: true,
    processEntities: true,
  });
  const suites = rules.map(({ id, title: about }) => {
    const places = stock.places.filter(({ rule }) => rule === id);
    const cases: Case[] =
      places.length === 0
        ? [{ "@_classname": id, "@_name": inLine(about), "@_time": "0" }]
        : places.map(caseOf);
    return suite(id, cases);
  });
  if (stock.checks.length > 0) suites.unshift(suite("checks", stock.checks.map(caseOfCheck)));
  const sum = (key: "@_tests" | "@_failures"): number => suites.reduce((all, suite) => all + suite[key], 0);
  const root = {
    "@_name": inLine(title),
    "@_tests": sum("@_tests"),
    "@_failures": sum("@_failures"),
    testsuite: suites,
  };
  return `<?xml version="1.0" encoding="UTF-8"?>\n${builder.build({ testsuites: root })}`;
}

/** What stands in a suite: a test that passed has neither a failure nor a reason why it was skipped. */
interface Case {
  readonly "@_classname": string;
  readonly "@_name": string;
  readonly "@_time": "0";
  readonly failure?: object;
  readonly skipped?: string;
}

function suite(name: string, cases: readonly Case[]) {
  return {
    "@_name": name,
    "@_tests": cases.length,
    "@_failures": cases.filter(({ failure }) => failure).length,
    "@_errors": 0,
    "@_skipped": cases.filter(({ skipped }) => skipped).length,
    "@_time": "0",
    testcase: cases,
  };
}

function caseOfCheck({ name, command, verdict, says, lines }: Checked): Case {
  const failure = { "@_message": inLine(says), "@_type": verdict, "#text": plainText(lines.join("\n")) };
  return {
    "@_classname": inLine(command),
    "@_name": inLine(name),
    "@_time": "0",
    ...(verdict === "different" ? { failure } : {}),
    ...(verdict === "same" || verdict === "different" ? {} : { skipped: plainText(says) }),
  };
}

/** What an attribute can hold. */
const inLine = (text: string): string => plainText(text).replace(/\s+/g, " ");

function caseOf(place: Place): Case {
  const { rule, path, line, range, trust, what, evidence, cautions, code, outcome, byName } = place;
  const says = inLine(outcome?.says ?? place.says);
  const lines = code.map((one) => `${one.isHit ? ">" : " "} ${one.line}  ${one.text}`);
  const text = [
    ...(byName ? ["By name alone."] : []),
    ...(outcome?.lines ?? []),
    ...lines,
    ...evidence,
    ...cautions,
  ].join("\n");
  return {
    "@_classname": rule,
    "@_name": inLine(`${path}:${line}:${range.start.column}`),
    "@_time": "0",
    ...(what === "held back" ? { skipped: says } : {}),
    ...(what !== "held back" && outcome?.is !== "passed"
      ? { failure: { "@_message": says, "@_type": outcome?.is ?? trust ?? what, "#text": plainText(text) } }
      : {}),
  };
}
