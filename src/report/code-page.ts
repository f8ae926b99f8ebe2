import { CODES, type Code } from "../analysis/index.js";
import { Engine, type FileResult } from "../engine/index.js";
import type { Pack, Rule, Target } from "../rules/index.js";
import { languageOf } from "../syntax/index.js";

/** Code of which something with a certain code is said. */
export interface CodeExample {
  readonly rules: readonly Rule[];
  readonly path: string;
  readonly text: string;
  /** The version of the language that the code must run on. */
  readonly target?: string | undefined;
}

/** What is said of an example. */
export async function sayingsOf({ rules, path, text, target }: CodeExample): Promise<Saying[]> {
  const targetOf = (): Target | undefined =>
    target === undefined ? undefined : { version: target, says: "by the example" };
  const result = await new Engine(rules, { targets: { targetOf } }).file(path, text);
  return result ? sayingsIn(result) : [];
}

/** A sentence with its code, and what kind of sentence it is. */
export interface Saying {
  readonly as: "yes" | "no" | "unknown" | "caution" | "held back";
  readonly code: Code;
  readonly says: string;
}

function sayingsIn({ changes, heldBack, advice = [] }: FileResult): Saying[] {
  return [
    ...heldBack.map(({ code, reason }): Saying => ({ as: "held back", code, says: reason })),
    ...changes.flatMap(({ cautions }) =>
      cautions.map(({ code, says }): Saying => ({ as: "caution", code, says })),
    ),
    ...[...changes, ...advice].flatMap(({ evidence }) =>
      evidence.map(({ answer, code, says }): Saying => ({ as: answer, code, says })),
    ),
  ];
}

/** What says most of a code comes first: doubts and refusals before what is known. */
const ORDER: readonly Saying["as"][] = ["caution", "unknown", "held back", "no", "yes"];

/**
 * The page that explains all codes in Markdown, each with the shortest code among the trials of the rules, and some
 * `more` examples, of which something is said under it.
 */
export async function codesPage(packs: readonly Pack[], more: readonly CodeExample[]): Promise<string> {
  const best = new Map<Code, { saying: Saying; example: CodeExample }>();
  const rank = (saying: Saying, { text }: CodeExample): number =>
    ORDER.indexOf(saying.as) * 1e6 + text.length;
  for (const example of [...packs.flatMap(({ rules }) => rules.flatMap(trialsOf)), ...more]) {
    for (const saying of await sayingsOf(example)) {
      const other = best.get(saying.code);
      if (!other || rank(saying, example) < rank(other.saying, other.example))
        best.set(saying.code, { saying, example });
    }
  }
  const out = [
    "# The codes of evidence, reasons and cautions",
    "",
    "Every sentence of a plan has a code beside it, which stays the same when the words change. Each code is a question;",
    "below it stands code for which a rule asks it, and what it says then. Rules of your own may use codes that begin",
    "with `own.`, as the rules that are made up for this page do. Written by `npm run docs`; a test runs every example.",
    "",
  ];
  for (const [code, asks] of Object.entries(CODES)) {
    out.push(`## ${code}`, "", `Asks ${asks}.`, "");
    const found = best.get(code as Code);
    if (!found) throw new RangeError(`no example says anything under the code ${code}`);
    const { saying, example } = found;
    const fence = example.text.includes("```") ? "````" : "```";
    const ids = example.rules.map(({ id }) => `\`${id}\``).join(", ");
    const on = example.target === undefined ? "" : ` for version ${example.target}`;
    out.push(
      `${ids} says of \`${example.path}\`${on}:`,
      "",
      fence,
      example.text.replace(/\n$/, ""),
      fence,
      "",
    );
    out.push(`> ${saying.as}: ${saying.says}`, "");
  }
  return out.join("\n");
}

function trialsOf(rule: Rule): CodeExample[] {
  return rule.trials
    .filter(({ beside }) => beside === undefined)
    .map(({ language, was, target }) => ({
      rules: [rule],
      path: `example${languageOf(language).extensions[0]!}`,
      text: was,
      target,
    }));
}
