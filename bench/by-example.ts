/**
 * What `prove --by-example` finds, in code that nobody here wrote:
 *
 *   npx jiti bench/by-example.ts FOLDER [--count N] [--show N] [--tries N]
 *
 * Takes functions of JavaScript and Python in a folder that can be called on their own, and changes one place in each: once so
 * that it does the same (sides of a comparison or ways of a choice changed for each other, with what that asks for), once so
 * that it does something else, as naive rewrites do. Prints how many of the wrong changes were found, by kind, and how many
 * of the right ones were called wrong; `--show` prints some of those that were not found.
 */
import { readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { hashText, languageOfFile, loadGrammars, parseFile, type SyntaxNode } from "uvran/core";
import { decode, findSources } from "uvran/node";
import type { PlanChange } from "../dist/plan/index.js";
import { callablesIn } from "../dist/prove/by-example/callables.js";
import { Candidates, compareByExample } from "../dist/prove/index.js";

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    count: { type: "string", default: "300" },
    show: { type: "string", default: "0" },
    tries: { type: "string", default: "200" },
  },
});
const root = resolve(positionals[0] ?? ".");
const wanted = Number(values.count);

/** A place with what it may become: the same in other words, or something else. */
interface Place {
  readonly kind: string;
  readonly node: SyntaxNode;
  readonly right?: string;
  readonly wrong: string;
}

const SIMPLE = /^[\w$.]+$|^(["'])[^"'\\]*\1$/;
const TURNED: Readonly<Record<string, string>> = {
  "===": "===",
  "==": "==",
  "!==": "!==",
  "<": ">",
  ">": "<",
  "<=": ">=",
  ">=": "<=",
};

function placesIn(node: SyntaxNode): Place[] {
  const text = (field: string): string => node.child(field)?.text ?? "";
  if (node.is("ternary_expression")) {
    const [c, a, b] = [text("condition"), text("consequence"), text("alternative")];
    return [
      {
        kind: "ways changed for each other",
        node,
        right: `!(${c}) ? ${b} : ${a}`,
        wrong: `${c} ? ${b} : ${a}`,
      },
    ];
  }
  if (node.is("conditional_expression") && node.parts.length === 3) {
    const [a, c, b] = node.parts.map((part) => part.text);
    return [
      {
        kind: "ways changed for each other",
        node,
        right: `${b} if not (${c}) else ${a}`,
        wrong: `${b} if ${c} else ${a}`,
      },
    ];
  }
  if (node.is(["binary_expression", "boolean_operator", "comparison_operator"])) {
    const [left, right] = node.parts;
    const operator = node.children.find((child) => !child.named)?.text ?? "";
    if (!left || !right || node.parts.length !== 2) return [];
    const [a, b] = [left.text, right.text];
    const turned = TURNED[operator];
    const isSimple = SIMPLE.test(a) && SIMPLE.test(b) && turned !== undefined;
    const same = isSimple ? { right: `${b} ${turned} ${a}` } : {};
    switch (operator) {
      case "||":
        return [{ kind: "missing for falsy", node, wrong: `(${a}) ?? (${b})` }];
      case "or":
        return SIMPLE.test(a)
          ? [{ kind: "missing for falsy", node, wrong: `(${a} if ${a} is not None else ${b})` }]
          : [];
      case "??":
        return [{ kind: "falsy for missing", node, wrong: `(${a}) || (${b})` }];
      case "&&":
        return b.startsWith(`${a}.`) ? [{ kind: "a guard dropped", node, wrong: b }] : [];
      case "===":
      case "==":
        return [
          { kind: "a test turned", node, ...same, wrong: `${a} ${operator === "===" ? "!==" : "!="} ${b}` },
        ];
      case "<":
        return [
          {
            kind: b.endsWith(".length") || b.startsWith("len(") ? "the tail dropped" : "one off",
            node,
            ...same,
            wrong: b.endsWith(".length") || b.startsWith("len(") ? `${a} < ${b} - 1` : `${a} <= ${b}`,
          },
        ];
      case ">":
        return [{ kind: "one off", node, ...same, wrong: `${a} >= ${b}` }];
    }
  }
  if (node.is("call") && /^range\(len\([\w.]+\)\)$/.test(node.text))
    return [{ kind: "the tail dropped", node, wrong: node.text.replace(/\)\)$/, ") - 1)") }];
  if (node.is("assignment_pattern") || node.is("default_parameter"))
    return [
      {
        kind: "another default",
        node,
        wrong: `${node.parts[0]!.text}=${/^(0|""|''|\[\]|\{\}|false|False|None|null)$/.test(node.parts[1]?.text ?? "") ? "7" : /^\d+$/.test(node.parts[1]?.text ?? "") ? `${Number(node.parts[1]!.text) + 1}` : "None"}`,
      },
    ].filter(({ wrong }) => languageOfFile(path)?.id === "python" || !wrong.endsWith("None"));
  return [];
}

let path = "";
const texts = new Map<string, string>();
const all: {
  readonly name: string;
  readonly place: Place;
  readonly path: string;
  readonly right?: PlanChange;
  readonly wrong: PlanChange;
}[] = [];

function changeOf(place: Place, now: string, text: string): PlanChange {
  const { node, kind } = place;
  const id = hashText(`${path}:${node.start}:${now}`).slice(0, 16);
  const at = { line: node.line, column: 1 };
  const edits = [{ start: node.start, end: node.end, text: now }];
  texts.set(path, text);
  return {
    id,
    rules: [kind],
    title: kind,
    kind: "idiom",
    trust: "certain",
    path,
    line: node.line,
    range: { start: at, end: at },
    evidence: [],
    cautions: [],
    notes: [],
    edits,
    elsewhere: [],
    needs: [],
  };
}

for (const file of findSources(root, [], root, []).paths) {
  const language = languageOfFile(file);
  if (!language || !["javascript", "python"].includes(language.id)) continue;
  path = file;
  const text = decode(readFileSync(join(root, file)));
  if (text === undefined || /\btest|spec|bench|\/bin\//.test(file)) continue;
  await loadGrammars([language]);
  const tree = parseFile(text, language);
  if (tree.errors.length > 0) continue;
  const places = [...tree.root.descendants()].flatMap(placesIn);
  const changes = places.map((place) => ({ place, wrong: changeOf(place, place.wrong, text) }));
  const { callables } = await callablesIn(
    file,
    text,
    changes.map(({ wrong }) => wrong),
  );
  for (const { name, changes: own } of callables) {
    // One place in each function, drawn by its name.
    const inside = changes.filter(({ wrong }) => own.includes(wrong));
    const drawn = inside[parseInt(hashText(`${file} ${name}`).slice(0, 6), 16) % inside.length]!;
    const alike = inside.find(({ place }) => place.right !== undefined)?.place;
    all.push({
      name,
      path: file,
      place: drawn.place,
      wrong: drawn.wrong,
      ...(alike ? { right: changeOf(alike, alike.right!, text) } : {}),
    });
  }
}
all.sort((a, b) => (hashText(a.path + a.name) < hashText(b.path + b.name) ? -1 : 1));
console.log(`${all.length} functions that can be called on their own have a place to change`);

async function run(
  title: string,
  list: readonly PlanChange[],
): Promise<Awaited<ReturnType<typeof compareByExample>>> {
  const started = Date.now();
  const candidates = new Candidates(
    list,
    (file) => texts.get(file),
    () => "utf-8",
  );
  const examples = await compareByExample({ root, candidates, tries: Number(values.tries) });
  const different = examples.tried.filter(({ difference }) => difference !== undefined).length;
  console.log(
    `${title}: ${list.length} functions, ${examples.tried.length} could be tried, ${different} different, ${((Date.now() - started) / 1000).toFixed(0)} s`,
  );
  return examples;
}

// Not all functions can be tried: more than enough are drawn.
const right = await run("right", all.flatMap((one) => one.right ?? []).slice(0, Math.round(wanted * 1.6)));
for (const { path: file, name, difference } of right.tried)
  if (difference)
    console.log(
      `FALSE ALARM ${file} ${name}: ${difference.program}\n  ${difference.old.result}\n  ${difference.now.result}`,
    );
const wrong = await run("wrong", all.map((one) => one.wrong).slice(0, Math.round(wanted * 1.6)));
const kinds = [...new Set(all.map(({ place }) => place.kind))].sort();
for (const kind of kinds) {
  const own = wrong.tried.filter(({ changes }) => changes[0]!.rules[0] === kind);
  const found = own.filter(({ difference }) => difference).length;
  if (own.length > 0) console.log(`  ${kind.padEnd(28)} ${found} of ${own.length}`);
}
for (const { path: file, name, changes, inputs, results } of wrong.tried
  .filter(({ difference }) => !difference)
  .slice(0, Number(values.show))) {
  const [{ edits, rules }] = changes as [PlanChange];
  const text = texts.get(file)!;
  console.log(
    `NOT FOUND ${rules[0]} ${file}:${changes[0]!.line} ${name} (${inputs} inputs, ${results} results)\n  ${text.slice(edits[0]!.start, edits[0]!.end)}\n  ${edits[0]!.text}`,
  );
}
