import ts from "typescript";
import type { Template } from "../engine/protocol";
import { notAsking } from "./condition-edits";
import { afterImports, importing, importingTags } from "./import-edits";
import type { TextChange } from "./protocol";
import { nameOf, partsOf, ruleFile, valueOf } from "./rule-parts";
import { appendTo, applied, isName } from "./text-edits";

/** A part of a snippet made a hole, with everything in the rule's snippets that has the same text. */
export function opened(text: string, start: number, end: number, kind: string): string {
  const { rules } = partsOf(text);
  const rule = rules.find(({ was }) => was.some((one) => start >= one.start && end <= one.end));
  if (!rule) throw new Error("Select a part of the old code in the rule: what stands in `was`.");
  const code = text.slice(start, end);
  const name = freeName(text, wishFor(code, kind));
  const changes: TextChange[] = [];
  for (const template of [...rule.was, ...rule.becomes])
    for (const at of placesOf(code, template, text))
      changes.push({ from: at, to: at + code.length, insert: `\${${name}}` });
  if (changes.length === 0) changes.push({ from: start, to: end, insert: `\${${name}}` });
  return tidied(withHole(applied(text, changes), name, kind));
}

/** Where a piece of code stands in a snippet as a whole, and not as a part of a word. */
function placesOf(code: string, { items, start, end }: Template, text: string): number[] {
  const isWord = (char: string | undefined): boolean => char !== undefined && /[\p{L}\p{N}_$]/u.test(char);
  const isInHole = (at: number): boolean =>
    items.some(
      (item) => item.is !== "text" && at < item.end && at + code.length > item.start && !covers(item, at),
    );
  const covers = (item: { readonly start: number; readonly end: number }, at: number): boolean =>
    item.start >= at && item.end <= at + code.length;
  const found: number[] = [];
  for (
    let at = text.indexOf(code, start);
    at >= 0 && at + code.length <= end;
    at = text.indexOf(code, at + 1)
  ) {
    const cuts =
      (isWord(code[0]) && isWord(text[at - 1])) || (isWord(code.at(-1)) && isWord(text[at + code.length]));
    if (!cuts && !isInHole(at)) found.push(at);
  }
  return found;
}

/** What a hole is called that stands for some code. */
function wishFor(code: string, kind: string): string {
  if (kind === "statements" || kind === "statement") return "body";
  if (kind === "arguments") return "args";
  if (kind === "operator") return "operator";
  const words = code.match(/[\p{L}_][\p{L}\p{N}_]*/gu);
  const last = words?.at(-1);
  if (last === undefined || /^["'`\d]/.test(code)) return kind === "text" ? "text" : "value";
  const bare = last.replace(/^_+/, "") || "value";
  return bare[0]!.toLowerCase() + bare.slice(1);
}

function freeName(text: string, wish: string): string {
  // A word of the snippets is free as a name; a name that the file has itself is not.
  const own = new Set<string>();
  const visit = (node: ts.Node): void => {
    if (ts.isIdentifier(node)) own.add(node.text);
    ts.forEachChild(node, visit);
  };
  visit(ruleFile(text).file);
  const stem = isName(wish) ? wish : `${wish}Code`;
  let name = stem;
  for (let i = 2; own.has(name); i++) name = `${stem}${i}`;
  return name;
}

/** The file with a hole declared. */
function withHole(text: string, name: string, kind: string): string {
  const { file, holes } = ruleFile(text);
  const [first] = holes;
  if (!first) {
    const at = afterImports(file);
    const line = `\nconst { ${name} } = holes({ ${name}: ${JSON.stringify(kind)} });\n`;
    return importing(applied(text, [{ from: at, to: at, insert: line }]), ["holes"]);
  }
  return applied(text, [
    appendTo(first.binding.elements, first.binding, name, file),
    appendTo(first.specs.properties, first.specs, `${name}: ${JSON.stringify(kind)}`, file),
  ]);
}

/** The file without holes that no snippet has any more, and without what was imported for them. */
export function tidied(text: string): string {
  const { file, holes } = ruleFile(text);
  const uses = new Map<string, number>();
  const visit = (node: ts.Node): void => {
    if (ts.isIdentifier(node)) uses.set(node.text, (uses.get(node.text) ?? 0) + 1);
    ts.forEachChild(node, visit);
  };
  visit(file);
  for (const { binding, specs, statement } of holes) {
    const isIdle = (name: string | undefined): boolean => name !== undefined && uses.get(name) === 2;
    const names = binding.elements.map(({ name }) => name.getText(file));
    const idle = names.filter(isIdle);
    if (idle.length === 0) continue;
    if (idle.length === names.length) {
      const end = file.text[statement.end] === "\n" ? statement.end + 1 : statement.end;
      return applied(text, [{ from: statement.getFullStart(), to: end, insert: "\n" }]);
    }
    const gone = <T extends ts.Node>(list: ts.NodeArray<T>, isGone: (node: T) => boolean): TextChange[] =>
      list.flatMap((node, i) => {
        if (!isGone(node)) return [];
        const next = list[i + 1];
        return next
          ? [{ from: node.getStart(file), to: next.getStart(file), insert: "" }]
          : [{ from: list[i - 1]?.end ?? node.getStart(file), to: node.end, insert: "" }];
      });
    return tidied(
      applied(text, [
        ...gone(binding.elements, ({ name }) => name.getText(file) === idle[0]),
        ...gone(specs.properties, ({ name }) => name !== undefined && nameOf(name) === idle[0]),
      ]),
    );
  }
  return text;
}

/** A hole written out as code wherever it stands. */
export function writtenOut(text: string, name: string, code: string): string {
  const { rules } = partsOf(text);
  const safe = code.replace(/`/g, "\\`").replace(/\$\{/g, "\\${");
  const changes = rules
    .flatMap(({ was, becomes }) => [...was, ...becomes])
    .flatMap(({ items }) => items)
    .flatMap((item) =>
      item.is === "hole" && item.name === name ? [{ from: item.start, to: item.end, insert: safe }] : [],
    );
  const written = applied(text, changes);
  // What is asked about the hole goes with it.
  const mentions = new RegExp(`(?<![\\p{L}\\p{N}_$])${name}(?![\\p{L}\\p{N}_$])`, "u");
  const asked = partsOf(written).rules.flatMap(({ given }, rule) =>
    given.filter((source) => mentions.test(source)).map((source) => ({ rule, source })),
  );
  return tidied(asked.reduce((now, { rule, source }) => notAsking(now, rule, source), written));
}

/** The kind of a hole, and what narrows it. */
interface Spec {
  readonly kind: string;
  readonly limits: readonly { readonly name: string; readonly source: string }[];
}

export function spec(kind: string, limits: Spec["limits"]): string {
  if (limits.length === 0) return JSON.stringify(kind);
  return `{ kind: ${JSON.stringify(kind)}, ${limits.map(({ name, source }) => `${name}: ${source}`).join(", ")} }`;
}

export function respecified(text: string, hole: string, make: (spec: Spec) => string): string {
  const known = partsOf(text).holes.find(({ name }) => name === hole);
  const { holes, file } = ruleFile(text);
  const node = holes.map(({ specs }) => valueOf(specs, hole)).find((one) => one !== undefined);
  if (!known || !node) throw new Error(`The file declares no hole "${hole}".`);
  return importingTags(applied(text, [{ from: node.getStart(file), to: node.end, insert: make(known) }]));
}

/** The file with another name for a hole. Throws an Error for what is no name, or is taken. */
export function renamed(text: string, from: string, to: string): string {
  if (from === to) return text;
  if (!isName(to)) throw new Error(`"${to}" is no name: write letters and digits, beginning with a letter.`);
  const { file } = ruleFile(text);
  const changes: TextChange[] = [];
  let isTaken = false;
  const visit = (node: ts.Node): void => {
    if (ts.isIdentifier(node)) {
      // Members of other objects may have the same name.
      const isMember = ts.isPropertyAccessExpression(node.parent) && node.parent.name === node;
      if (node.text === to && !isMember) isTaken = true;
      if (node.text === from && !isMember)
        changes.push({ from: node.getStart(file), to: node.end, insert: to });
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  if (isTaken) throw new Error(`The file has the name "${to}" already.`);
  return applied(text, changes);
}
