import { Option, type Command } from "commander";
import "../node/grammars.js";
import {
  draft as draftRules,
  languageOfRule,
  shownCode,
  usual,
  type Draft,
  type DraftedMove,
  type Weighed,
} from "../draft/index.js";
import { editedFiles } from "../node/edited-files.js";
import { Problem } from "../node/problem.js";
import { plural, type Paint } from "../report/index.js";
import { gathered } from "./common.js";
import { checkRuleId } from "./rule-id.js";
import { deliver, printable } from "./deliver.js";
import { examples, paintForOut } from "./terminal.js";

interface Options {
  readonly among?: readonly string[];
  readonly move?: string;
  readonly take?: string;
  readonly id?: string;
  readonly out?: string;
  readonly json?: boolean;
}

export function describeDraft(command: Command): void {
  command
    .description(
      "Drafts rules from an edit made by hand: two files, two folders, or a range of commits. Edits that are the same " +
        "move make one rule, which is tried on the code as it was before anything is said of it.",
    )
    .argument("<old>", "a file, a folder or a git revision: the code as it was")
    .argument("[new]", "the same after the edit; without it, the files as they are now")
    .option("--among <path>", "other code, in which places are counted that the rule would change", gathered)
    .option("--move <number>", "the move of which a rule is wanted, as the list counts them")
    .addOption(
      new Option("--take <width>", "how much to leave open").choices(["tight", "middle", "wide", "meaning"]),
    )
    .option("--id <id>", "the id of the rule, such as python/lit-smoker")
    .option("--out <file>", "write the rule to a file")
    .option("--json", "all that was found as JSON, with the rules")
    .addHelpText(
      "after",
      examples(
        "uvran draft hives.py.orig hives.py",
        "uvran draft before/ after/ --out rules/hives.ts",
        "uvran draft HEAD",
        "uvran draft v1.0 main --move 2 --take tight --out rules/second.ts",
      ),
    )
    .action(draft);
}

async function draft(old: string, now: string | undefined, options: Options): Promise<void> {
  if (options.id !== undefined) checkRuleId(options.id);
  const { pairs, beside, skipped, unknown } = await editedFiles(old, now, options.among ?? [], process.cwd());
  for (const { path, why } of skipped) process.stderr.write(printable(`${path} is left out: ${why}.\n`));
  if (unknown > 0) process.stderr.write(`${plural(unknown, "file")} of other kinds changed as well.\n`);
  if (pairs.length === 0)
    throw new Problem("No file that Uvran reads was edited there, so there is nothing to learn from.", 1);
  const language = options.id?.split("/")[0];
  if (language !== undefined && !pairs.some((pair) => languageOfRule(pair.language) === language))
    throw new Problem(
      `No file of the language of "${options.id}" was edited there. Begin the id with the language of the code.`,
    );
  const result = await draftRules({ pairs, beside, ...(options.id === undefined ? {} : { id: options.id }) });
  const paint = paintForOut(undefined);
  const { moves } = result;
  const index = chosenMove(moves, options.move);
  const weighed = index === undefined ? [] : await moves[index]!.weigh();
  if (options.json) return deliver(await asJson(result, index, weighed), options.out);
  if (moves.every(({ candidates }) => candidates.length === 0)) {
    process.stdout.write(printable(listed(result, undefined, [], undefined, paint)));
    process.exitCode = 1;
    return;
  }
  const candidate = chosenCandidate(weighed, options.take);
  process.stdout.write(printable(listed(result, index, weighed, candidate, paint)));
  const source = await moves[index!]!.source(candidate);
  if (options.out === undefined) process.stdout.write(`\n${printable(source)}`);
  else {
    deliver(source, options.out);
    process.stdout.write(
      `\nWritten to ${options.out}. Say in it what is wrong with the old code, put it into a pack of your config, and run: uvran rules --try\n`,
    );
  }
}

function chosenMove(moves: readonly DraftedMove[], wanted: string | undefined): number | undefined {
  if (wanted === undefined) {
    const first = moves.findIndex(({ candidates }) => candidates.length > 0);
    return first < 0 ? undefined : first;
  }
  const index = Number(wanted) - 1;
  if (!Number.isInteger(index) || !moves[index])
    throw new Problem(
      `There is no move ${wanted}; there ${moves.length === 1 ? "is 1" : `are ${moves.length}`}.`,
    );
  if (moves[index].candidates.length === 0)
    throw new Problem(
      `No rule was found for move ${wanted} that makes of the old code what the edit made of it.`,
      1,
    );
  return index;
}

function chosenCandidate(candidates: readonly Weighed[], width: string | undefined): Weighed {
  if (width === undefined) return usual(candidates)!;
  const found = candidates.find((one) => one.width === width);
  if (found) return found;
  // Widths that would say the same are listed once.
  const order = ["tight", "middle", "wide"];
  if (width === "meaning")
    throw new Problem(
      "No reading finds these edits, so there is no rule by meaning. Leave --take out, or take middle.",
      1,
    );
  const narrower = candidates.filter((one) => order.indexOf(one.width) <= order.indexOf(width));
  return narrower.at(-1) ?? candidates[0]!;
}

/** As many places as a reader takes in. */
const SHOWN = 5;

function listed(
  { moves, unexplained }: Draft,
  taken: number | undefined,
  weighed: readonly Weighed[],
  candidate: Weighed | undefined,
  paint: Paint,
): string {
  const out: string[] = [];
  const chosen = usual(weighed);
  moves.forEach(({ edits, candidates }, i) => {
    const files = new Set(edits.map(({ path }) => path)).size;
    const about = candidates[0] ? paint.bold(candidates[0].spec.id) : paint.yellow("no rule found");
    out.push(
      `${i === taken ? "▸" : " "} ${i + 1}  ${about}   ${plural(edits.length, "edit")} in ${plural(files, "file")}`,
    );
    for (const { path, line, before, after } of edits.slice(0, i === taken ? SHOWN : 1)) {
      out.push(paint.dim(`       ${path}:${line}`));
      out.push(...diffOf(before, after, paint));
    }
    if (i === taken && edits.length > SHOWN) out.push(paint.dim(`       … and ${edits.length - SHOWN} more`));
    if (i !== taken) return void out.push("");
    for (const one of weighed) {
      const isTaken = one === candidate;
      const changed = one.others.filter(({ trust }) => trust !== undefined);
      const held = one.others.length - changed.length;
      const places =
        changed.length === 0 ? "changes nothing else" : `changes ${plural(changed.length, "more place")}`;
      const kept = held === 0 ? "" : `, holds ${plural(held, "place")} back`;
      out.push(
        "",
        `       ${isTaken ? paint.green("●") : "○"} ${paint.bold(one.width)}${one === chosen && !isTaken ? " (usual)" : ""}: ${places}${kept}`,
      );
      out.push(`         ${one.old?.source ?? inOneLine(shownCode(one.drafted.was))}`);
      out.push(
        `         ${paint.dim("becomes")} ${one.old?.becomes ?? (inOneLine(shownCode(one.drafted.becomes)) || "nothing")}`,
      );
      for (const { source } of one.conditions) out.push(`         ${paint.dim("given")} ${source}`);
      for (const { source, path, line } of one.waived)
        out.push(
          paint.yellow(
            `         not asked ${source}: it does not hold in ${path}:${line}, which was edited all the same`,
          ),
        );
      for (const { path, line, code } of changed.slice(0, SHOWN))
        out.push(paint.dim(`         ${path}:${line}  ${inOneLine(code)}`));
      for (const { path, line, reason } of one.others.filter(({ trust }) => trust === undefined).slice(0, 3))
        out.push(paint.dim(`         ${path}:${line}  held back: ${reason}`));
      if (changed.length > SHOWN) out.push(paint.dim(`         … and ${changed.length - SHOWN} more`));
    }
    out.push("");
  });
  if (unexplained.length > 0) {
    out.push(
      `${plural(unexplained.length, "edit")} without a rule: the new code has something that the old code does not account for.`,
    );
    for (const { path, line, before, after } of unexplained.slice(0, SHOWN)) {
      out.push(paint.dim(`       ${path}:${line}`));
      out.push(...diffOf(before, after, paint));
    }
    if (unexplained.length > SHOWN) out.push(paint.dim(`       … and ${unexplained.length - SHOWN} more`));
  }
  return `${out.join("\n").replace(/\n+$/, "")}\n`;
}

/** Lines of a piece of code that are shown. */
const MOST_LINES = 6;

function diffOf(before: string, after: string, paint: Paint): string[] {
  const side = (code: string, sign: string): string[] => {
    if (code === "") return [];
    const lines = code.split("\n");
    const shown = lines.slice(0, MOST_LINES).map((line) => `       ${sign} ${line}`);
    return lines.length > MOST_LINES ? [...shown, `       ${sign} …`] : shown;
  };
  return [...side(before, "-").map(paint.red), ...side(after, "+").map(paint.green)];
}

function inOneLine(code: string): string {
  const line = code.replace(/\s+/g, " ").trim();
  return line.length > 90 ? `${line.slice(0, 89)}…` : line;
}

async function asJson(
  { moves, unexplained }: Draft,
  taken: number | undefined,
  weighed: readonly Weighed[],
): Promise<string> {
  const all = [];
  for (const [i, { edits, candidates, source }] of moves.entries()) {
    const rules = [];
    for (const one of candidates) {
      const tried = i === taken ? weighed.find(({ width }) => width === one.width) : undefined;
      rules.push({
        id: one.spec.id,
        width: one.width,
        was: one.old?.source ?? shownCode(one.drafted.was),
        becomes: one.old?.becomes ?? shownCode(one.drafted.becomes),
        given: (tried ?? one).conditions.map((condition) => condition.source),
        ...(tried
          ? {
              usual: tried === usual(weighed),
              others: tried.others.map(({ path, line, code, trust, reason }) => ({
                path,
                line,
                code,
                trust: trust ?? null,
                reason,
              })),
              source: await source(tried),
            }
          : {}),
      });
    }
    all.push({ edits, taken: i === taken, rules });
  }
  return `${JSON.stringify({ moves: all, unexplained }, null, 1)}\n`;
}
