import { stripVTControlCharacters } from "node:util";
import { XMLParser } from "fast-xml-parser";
import { Parser as TapParser, type Result } from "tap-parser";

/** How the tests of a check went: each by name as far as they are named, and else how many. */
export interface TestResults {
  readonly passed: number;
  readonly failed: number;
  readonly skipped: number;
  /** Names of those that passed; empty where the form only counts them. */
  readonly passedNames: ReadonlySet<string>;
  readonly failedNames: ReadonlySet<string>;
}

/** The results in a file: JUnit XML or TAP; undefined for any other text. */
export function resultsInFile(text: string): TestResults | undefined {
  return text.trimStart().startsWith("<") ? junitResults(text) : tapResults(text);
}

/** The results in what a runner printed; undefined where no form is known. */
export function resultsPrinted(printed: string): TestResults | undefined {
  const clean = stripVTControlCharacters(printed);
  return tapResults(clean) ?? summaryResults(clean);
}

/** Several results as one. */
export function allResults(results: readonly TestResults[]): TestResults | undefined {
  if (results.length === 0) return undefined;
  const sum = (of: (one: TestResults) => number): number => results.reduce((all, one) => all + of(one), 0);
  return {
    passed: sum(({ passed }) => passed),
    failed: sum(({ failed }) => failed),
    skipped: sum(({ skipped }) => skipped),
    passedNames: new Set(results.flatMap(({ passedNames }) => [...passedNames])),
    failedNames: new Set(results.flatMap(({ failedNames }) => [...failedNames])),
  };
}

type Outcome = "passed" | "failed" | "skipped";

function fromNamed(tests: readonly (readonly [string, Outcome])[]): TestResults {
  const named = (wanted: Outcome): string[] => tests.filter(([, is]) => is === wanted).map(([name]) => name);
  const [passed, failed] = [named("passed"), named("failed")];
  return {
    passed: passed.length,
    failed: failed.length,
    skipped: named("skipped").length,
    passedNames: new Set(passed),
    failedNames: new Set(failed),
  };
}

type Xml = Readonly<Record<string, unknown>>;
const xml = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: "", processEntities: false });

function junitResults(text: string): TestResults | undefined {
  let root: Xml;
  try {
    root = xml.parse(text) as Xml;
  } catch {
    return undefined;
  }
  if (!("testsuites" in root) && !("testsuite" in root)) return undefined;
  const tests: [string, Outcome][] = [];
  const walk = (node: unknown): void => {
    for (const one of listOf(node)) {
      if (typeof one !== "object" || one === null) continue;
      const suite = one as Xml;
      walk(suite["testsuite"]);
      for (const test of listOf(suite["testcase"]) as Xml[]) {
        if (typeof test !== "object" || test === null) continue;
        const name = [test["classname"], test["name"]].filter((part) => part !== undefined).join(" › ");
        const is = "failure" in test || "error" in test ? "failed" : "skipped" in test ? "skipped" : "passed";
        tests.push([name, is]);
      }
    }
  };
  walk(root["testsuites"]);
  walk(root["testsuite"]);
  return fromNamed(tests);
}

function listOf(value: unknown): unknown[] {
  return Array.isArray(value) ? value : value === undefined ? [] : [value];
}

function tapResults(text: string): TestResults | undefined {
  if (!/^TAP version \d+$|^\d+\.\.\d+/m.test(text) || !/^(?:not )?ok\b/m.test(text)) return undefined;
  const tests: [string, Outcome][] = [];
  const listen = (parser: TapParser, above: readonly string[]): void => {
    const inner = new Set<string>();
    parser.on("child", (child: TapParser) => {
      inner.add(child.name);
      listen(child, [...above, child.name]);
    });
    parser.on("assert", ({ ok, name, skip, todo }: Result) => {
      if (inner.has(name)) return; // its parts are counted
      const is = skip ? "skipped" : ok ? "passed" : todo ? "skipped" : "failed";
      tests.push([[...above, name].filter((part) => part !== "").join(" › "), is]);
    });
  };
  const parser = new TapParser();
  listen(parser, []);
  parser.end(text);
  return tests.length === 0 ? undefined : fromNamed(tests);
}

/** What runners print at their end. `failed` names a failed test on each line that it fits. */
interface Summary {
  readonly is: RegExp;
  readonly passed?: RegExp;
  /** All that ran, where those that passed are not counted. */
  readonly total?: RegExp;
  readonly failed: readonly RegExp[];
  readonly skipped?: RegExp;
  readonly names: RegExp;
}

const SUMMARIES: readonly Summary[] = [
  {
    // "Tests:       1 failed, 2 skipped, 3 passed, 6 total" and "Tests  1 failed | 3 passed (4)"
    is: /^\s*Tests:?\s+.*(?:\d+ total|\(\d+\))\s*$/m,
    passed: /^\s*Tests:?\s.*?(\d+) passed/m,
    failed: [/^\s*Tests:?\s.*?(\d+) failed/m],
    skipped: /^\s*Tests:?\s.*?(\d+) (?:skipped|todo)/m,
    names: /^\s*(?:●|FAIL|×)\s+(.*\S)$/gm,
  },
  {
    // "  12 passing (30ms)"
    is: /^\s+\d+ passing\b/m,
    passed: /^\s+(\d+) passing/m,
    failed: [/^\s+(\d+) failing/m],
    skipped: /^\s+(\d+) pending/m,
    names: /^\s+\d+\) (.*?):?$/gm,
  },
  {
    // "ℹ pass 3"
    is: /^(?:ℹ|#) pass \d+$/m,
    passed: /^(?:ℹ|#) pass (\d+)$/m,
    failed: [/^(?:ℹ|#) fail (\d+)$/m],
    skipped: /^(?:ℹ|#) skipped (\d+)$/m,
    names: /^\s*✖ (.*?) \([\d.]+m?s\)$/gm,
  },
  {
    // "=== 1 failed, 2 passed in 0.12s ==="
    is: /^=* ?(?:\d+ \w+, )*\d+ (?:passed|failed|errors?|skipped)(?:, \d+ \w+)* in [\d.]+s.*$/m,
    passed: /(\d+) passed\b.* in /,
    failed: [/(\d+) failed\b.* in /, /(\d+) errors?\b.* in /],
    skipped: /(\d+) skipped\b.* in /,
    names: /^(?:FAILED|ERROR) (\S+)/gm,
  },
  {
    // "Ran 5 tests in 0.003s" and "FAILED (failures=1, errors=2)"
    is: /^Ran \d+ tests? in /m,
    total: /^Ran (\d+) tests? in /m,
    failed: [/failures=(\d+)/, /errors=(\d+)/],
    skipped: /skipped=(\d+)/,
    names: /^(?:FAIL|ERROR): (.*)$/gm,
  },
  {
    // "Tests run: 5, Failures: 1, Errors: 0, Skipped: 0"
    is: /Tests run: \d+,\s+Failures: \d+/,
    total: /Tests run: (\d+)(?![\s\S]*Tests run: )/,
    failed: [/Failures: (\d+)(?![\s\S]*Failures: )/, /Errors: (\d+)(?![\s\S]*Errors: )/],
    skipped: /Skipped: (\d+)(?![\s\S]*Skipped: )/,
    names: /^(?:\[ERROR\]\s+(?=\S+:\d)|\d+\) )([^\s:]+)/gm,
  },
  {
    // "OK (5 tests, 9 assertions)" and "OK (5 tests)"
    is: /^OK \(\d+ tests?(?:, \d+ assertions?)?\)/m,
    passed: /^OK \((\d+) tests?/m,
    failed: [],
    names: /(?!)/g,
  },
  {
    // "Tests: 5, Assertions: 9, Failures: 1, Errors: 1."
    is: /^Tests: \d+, Assertions: \d+/m,
    total: /^Tests: (\d+), Assertions/m,
    failed: [/, Failures: (\d+)/, /, Errors: (\d+)/],
    skipped: /, Skipped: (\d+)/,
    names: /^\d+\) (\S+::.*)$/gm,
  },
  {
    // "5 examples, 1 failure"
    is: /^\d+ examples?, \d+ failures?/m,
    total: /^(\d+) examples?,/m,
    failed: [/^\d+ examples?, (\d+) failures?/m],
    skipped: /, (\d+) pending/,
    names: /^rspec \S+ # (.*)$/gm,
  },
  {
    // "5 runs, 9 assertions, 1 failures, 0 errors, 0 skips"
    is: /^\d+ (?:runs|tests), \d+ assertions, \d+ failures, \d+ errors/m,
    total: /^(\d+) (?:runs|tests), \d+ assertions/m,
    failed: [/, (\d+) failures,/, /, (\d+) errors/],
    skipped: /, (\d+) skips/,
    names: /^\s*(?:Failure:|Error:)?\s*(\w+#test_\w+)/gm,
  },
  {
    // "Passed!  - Failed: 0, Passed: 5, Skipped: 0, Total: 5"
    is: /(?:Passed|Failed)!\s+- Failed:\s+\d+, Passed:\s+\d+/,
    passed: /Passed:\s+(\d+)/,
    failed: [/Failed:\s+(\d+)/],
    skipped: /Skipped:\s+(\d+)/,
    names: /^\s+Failed (\S+)/gm,
  },
  {
    // "100% tests passed, 0 tests failed out of 5"
    is: /\d+% tests passed, \d+ tests failed out of \d+/,
    total: /tests failed out of (\d+)/,
    failed: [/(\d+) tests failed out of/],
    names: /^\s*\d+ - (\S+) \(/gm,
  },
  {
    // "[  PASSED  ] 5 tests."
    is: /^\[ {2}PASSED {2}\] \d+ tests?/m,
    passed: /^\[ {2}PASSED {2}\] (\d+) tests?/m,
    failed: [/^\[ {2}FAILED {2}\] (\d+) tests?/m],
    names: /^\[ {2}FAILED {2}\] (\w+\.\w+)/gm,
  },
];

function summaryResults(printed: string): TestResults | undefined {
  const form = SUMMARIES.find(({ is }) => is.test(printed));
  if (!form) return undefined;
  const numberOf = (expression: RegExp | undefined): number => Number(expression?.exec(printed)?.[1] ?? 0);
  const failed = form.failed.reduce((all, one) => all + numberOf(one), 0);
  const skipped = numberOf(form.skipped);
  return {
    passed: form.passed ? numberOf(form.passed) : numberOf(form.total) - failed - skipped,
    failed,
    skipped,
    passedNames: new Set(),
    failedNames: new Set([...printed.matchAll(form.names)].map((match) => match[1]!)),
  };
}

/** What is worse now than before; undefined where nothing is. */
export function worseResults(before: TestResults, now: TestResults): string[] {
  const out: string[] = [];
  for (const name of now.failedNames) if (!before.failedNames.has(name)) out.push(`fails now: ${name}`);
  for (const name of before.passedNames)
    if (!now.passedNames.has(name) && !now.failedNames.has(name))
      out.push(`passed, and did not run now: ${name}`);
  if (out.length > 0) return out;
  if (now.failed > before.failed) out.push(`${now.failed} tests fail, and ${before.failed} did`);
  if (now.passed < before.passed) out.push(`${now.passed} tests pass, and ${before.passed} did`);
  return out;
}
