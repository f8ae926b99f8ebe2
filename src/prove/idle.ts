import { comparisonsOf, type Check } from "../node/index.js";
import { isDone, type Ran } from "./compare.js";

/** What test runners exit with when they had to skip, and shells when a command is not there. */
const SKIPPED = 77;
const NOT_FOUND = 127;

/** Why a check did not run; undefined for one that did. */
export function reasonSkipped({ exit, output, errors }: Ran): string | undefined {
  if (exit !== SKIPPED && exit !== NOT_FOUND) return undefined;
  return firstLine(errors, output) ?? (exit === SKIPPED ? "it says so" : "a command was not found");
}

/** Why what a check does on the old code proves nothing; undefined where it proves something. */
export function reasonFailing(check: Check, before: Ran): string | undefined {
  const wanted = comparisonsOf(check);
  if (before.stopped !== undefined) return before.stopped;
  if (wanted.includes("tests") && !before.tests)
    return "no test results were found in what it prints or writes";
  if (before.tests?.passed === 0) return "no test passes on the old code";
  // One that begins to fail while another one stops could not be told.
  if (before.tests && before.tests.failed > 0 && before.tests.failedNames.size < before.tests.failed)
    return `${before.tests.failed} tests fail on the old code, and what it prints does not name them`;
  const isOfParts =
    (wanted.includes("messages") && (before.messages ?? []).length > 0) || before.tests !== undefined;
  if (isDone(check, before) || isOfParts) return undefined;
  const said = firstLine(before.errors, before.output);
  return `it ends with ${before.exit ?? "a signal"} on the old code${said === undefined ? "" : `: ${said}`}`;
}

function firstLine(...texts: readonly string[]): string | undefined {
  return texts
    .join("\n")
    .split("\n")
    .map((line) => line.trim())
    .find((line) => line !== "");
}
