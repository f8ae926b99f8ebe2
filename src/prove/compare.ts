import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import ignore from "ignore";
import { comparisonsOf, type Check } from "../node/index.js";
import { fileDiff, plural } from "../report/index.js";
import type { Copy } from "./copy.js";
import { messagesIn, newMessages, placesIn, type Message, type Place } from "./messages.js";
import type { Run } from "./run.js";
import { allResults, resultsInFile, resultsPrinted, worseResults, type TestResults } from "./test-results.js";

/** A run of a check with what it left behind, and nothing in it of where it ran. */
export interface Ran extends Run {
  readonly messages?: readonly Message[];
  readonly tests?: TestResults;
  /** What it wrote: what stands for the content of each file, "gone" for one that it removed. */
  readonly files?: ReadonlyMap<string, string>;
}

/** Gathers what is compared of a run that has just ended in a copy. */
export function observed(check: Check, copy: Copy, run: Run): Ran {
  const wanted = comparisonsOf(check);
  const neutral = (text: string): string =>
    without(text.replaceAll(`${copy.folder}/`, "").replaceAll(copy.folder, "."), check);
  const [output, errors] = [neutral(run.output), neutral(run.errors)];
  const printed = `${output}\n${errors}`;
  const tests = wanted.includes("tests") ? resultsOf(check, copy, printed) : undefined;
  const own = check.message === undefined ? undefined : new RegExp(check.message);
  return {
    ...run,
    output,
    errors,
    ...(wanted.includes("messages") ? { messages: messagesIn(printed, own) } : {}),
    ...(tests ? { tests } : {}),
    ...(wanted.includes("files") ? { files: filesOf(check, copy) } : {}),
  };
}

function without(text: string, { ignore: parts = [] }: Check): string {
  return parts.reduce<string>((rest, part) => {
    const { source, flags } = typeof part === "string" ? new RegExp(part, "m") : part;
    return rest.replace(new RegExp(source, flags.includes("g") ? flags : `${flags}g`), "");
  }, text);
}

function resultsOf({ results }: Check, copy: Copy, printed: string): TestResults | undefined {
  if (!results) return resultsPrinted(printed);
  const { added, changed } = copy.written();
  const wanted = ignore().add([...results]);
  // Results that lay in the project before are none of this run.
  const paths = [...added, ...changed].filter((path) => wanted.ignores(path)).sort();
  const read = paths.map((path) => resultsInFile(readFileSync(join(copy.folder, path), "utf8")));
  return allResults(read.filter((one) => one !== undefined));
}

function filesOf({ files }: Check, copy: Copy): ReadonlyMap<string, string> {
  const { added, changed, gone } = copy.written();
  const wanted = ignore().add([...(files ?? ["*"])]);
  const hashes = [...added, ...changed]
    .filter((path) => wanted.ignores(path))
    .map((path): [string, string] => [path, hashOf(readFileSync(join(copy.folder, path)))]);
  return new Map([
    ...hashes,
    ...gone.filter((path) => wanted.ignores(path)).map((path): [string, string] => [path, "gone"]),
  ]);
}

function hashOf(content: Buffer): string {
  return createHash("sha256").update(content).digest("hex");
}

/** How the run of new code stands against the one of old code. */
export interface Compared {
  readonly same: boolean;
  /** What was compared, in a few words: "2 lines of output", "1 new message". */
  readonly summary: string;
  /** What is different, line by line, for people. */
  readonly lines: readonly string[];
  /** Where it points to, as the command writes it. */
  readonly places: readonly Place[];
  /** Is each difference a message with a place? */
  readonly isPlaced: boolean;
}

const MOST_LINES = 30;
/** Of what a run printed, in UTF-16 code units from the end. */
const MOST_SEARCHED = 1_000_000;

/** Compares two runs of a check, as it says what counts. */
export function compareRuns(check: Check, before: Ran, after: Ran): Compared {
  const wanted = comparisonsOf(check);
  const summaries: string[] = [];
  const lines: string[] = [];
  let places: Place[] = [];
  const news = before.messages && after.messages ? newMessages(before.messages, after.messages) : [];
  if (wanted.includes("messages")) {
    const gone = newMessages(after.messages ?? [], before.messages ?? []).length;
    summaries.push(news.length > 0 ? plural(news.length, "new message") : "no new message");
    if (gone > 0) summaries.push(`${gone} gone`);
    lines.push(...news.map(shownMessage));
    places = news.flatMap((message) => {
      const { file, line } = message;
      return file !== undefined && line !== undefined ? [{ file, line, says: shownMessage(message) }] : [];
    });
  }
  const isPlaced = lines.length > 0 && places.length === news.length;
  if (before.tests && after.tests) {
    lines.push(...worseResults(before.tests, after.tests));
    summaries.push(`${plural(after.tests.passed, "test")} passed${failedText(after.tests)}`);
  } else if (before.tests) {
    lines.push("it has no test results now");
  } else if (wanted.includes("tests")) summaries.push("no test results were found in what it prints");
  if (wanted.includes("output")) {
    summaries.push(`${plural(lineCount(before.output), "line")} of output`);
    if (before.output !== after.output) lines.push(...difference(before.output, after.output));
  }
  if (wanted.includes("lines")) {
    const sorted = (text: string): string => text.split("\n").sort().join("\n");
    summaries.push(`${plural(lineCount(before.output), "line")} in any order`);
    if (sorted(before.output) !== sorted(after.output))
      lines.push(...difference(sorted(before.output), sorted(after.output)));
  }
  if (wanted.includes("json")) {
    const [old, now] = [jsonOf(before.output), jsonOf(after.output)];
    summaries.push(old === undefined ? "no JSON in its output" : "JSON output");
    // What is not JSON on one side is compared as it stands.
    const [a, b] = old === undefined || now === undefined ? [before.output, after.output] : [old, now];
    if (a !== b) lines.push(...difference(a, b));
  }
  if (before.files && after.files) {
    summaries.push(`${plural(before.files.size, "file")} written`);
    lines.push(...differentFiles(before.files, after.files));
  }
  const isHealed = isDone(check, after) && (wanted.includes("messages") || wanted.includes("tests"));
  if (before.stopped !== after.stopped) lines.push(`stopped: ${after.stopped ?? "not any more"}`);
  else if (before.exit !== after.exit && !isHealed) {
    lines.push(`exit ${shownExit(before)} → ${shownExit(after)}`);
    if (news.length === 0) lines.push(...lastLines(after.errors));
  }
  if (!isDone(check, before) || !isDone(check, after))
    summaries.unshift(`exit ${shownExit(before)} → ${shownExit(after)}`);
  else if (summaries.length === 0) summaries.push(`exit ${shownExit(after)}`);
  const same = lines.length === 0;
  if (!same && places.length === 0) {
    const old = new Set(placesIn(printedBy(before)).map(keyOf));
    places = placesIn(printedBy(after)).filter((place) => !old.has(keyOf(place)));
  }
  return { same, summary: summaries.join(", "), lines: lines.slice(0, MOST_LINES), places, isPlaced };
}

/** Has a check ended as it is meant to? */
export function isDone({ exit = 0 }: Check, run: Run): boolean {
  return run.stopped === undefined && run.exit === exit;
}

export function shownExit({ exit, stopped }: Run): string {
  return stopped !== undefined ? "stopped" : exit === null ? "by a signal" : String(exit);
}

/** What a run printed, as far as anybody looks for places in it. */
function printedBy({ output, errors }: Run): string {
  return `${output.slice(-MOST_SEARCHED)}\n${errors.slice(-MOST_SEARCHED)}`;
}

function keyOf({ file, line }: Place): string {
  return `${file}:${line}`;
}

function shownMessage({ file, line, isError, text }: Message): string {
  const place = file === undefined ? "" : `${file}${line === undefined ? "" : `:${line}`}: `;
  return `${place}${isError ? "error" : "warning"}: ${text}`;
}

function failedText({ failed, skipped }: TestResults): string {
  return (failed > 0 ? `, ${failed} failed` : "") + (skipped > 0 ? `, ${skipped} skipped` : "");
}

function lineCount(text: string): number {
  return text.split("\n").length - (text.endsWith("\n") || text === "" ? 1 : 0);
}

/** The first lines that differ, with those around them. */
function difference(before: string, after: string): string[] {
  const [old, now] = [before.split("\n"), after.split("\n")];
  const first = old.findIndex((line, i) => line !== now[i]);
  const from = Math.max(0, (first < 0 ? old.length : first) - 2);
  const part = (lines: readonly string[]): string =>
    lines.slice(from, from + MOST_LINES * 2).join("\n") + "\n";
  const lines = fileDiff("output", part(old), part(now))
    .split("\n")
    .slice(4)
    .filter((line) => line.trim() !== "");
  return lines.length > 0 ? lines : ["the output is different"];
}

function differentFiles(before: ReadonlyMap<string, string>, after: ReadonlyMap<string, string>): string[] {
  const paths = [...new Set([...before.keys(), ...after.keys()])].sort();
  return paths.flatMap((path) => {
    if (before.get(path) === after.get(path)) return [];
    if (!after.has(path)) return [`not written now: ${path}`];
    return [before.has(path) ? `written with other content: ${path}` : `written only now: ${path}`];
  });
}

/** The values of a text in JSON, or in JSON line by line, in one form; undefined where it is neither. */
function jsonOf(text: string): string | undefined {
  const parts = [[text], text.split("\n").filter((line) => line.trim() !== "")];
  for (const all of parts) {
    try {
      return all.map((part) => JSON.stringify(ordered(JSON.parse(part)), null, 1)).join("\n");
    } catch {
      continue;
    }
  }
  return undefined;
}

function ordered(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(ordered);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, ordered(inner)]),
  );
}

function lastLines(text: string): string[] {
  return text
    .split("\n")
    .filter((line) => line.trim() !== "")
    .slice(-12);
}
