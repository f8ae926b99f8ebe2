import ts from "typescript";
import type { Template } from "../engine/protocol";
import type { Action, TextChange } from "./protocol";
import { nameOf, partsOf, ruleFile, valueOf, type RuleFile } from "./rule-parts";

/** A rule file after something was done to it. Throws an Error that says why it cannot be done. */
export function done(text: string, action: Action): string {
  switch (action.does) {
    case "open":
      return opened(text, action.start, action.end, action.kind);
    case "widen":
      return tidied(applied(text, [{ from: action.start, to: action.end, insert: `\${${action.name}}` }]));
    case "write-out":
      return writtenOut(text, action.name, action.code);
    case "kind":
      return respecified(text, action.name, ({ limits }) => spec(action.kind, limits));
    case "limit":
      return respecified(text, action.name, ({ kind, limits }) => {
        const others = limits.filter(({ name }) => name !== action.limit);
        const { limit: name, source } = action;
        return spec(kind, source === undefined ? others : [...others, { name, source }]);
      });
    case "rename":
      return renamed(text, action.name, action.to);
    case "ask":
      return asking(text, action.rule, action.source, action.imports);
    case "do-not-ask":
      return notAsking(text, action.rule, action.source);
    case "trial":
      return withTrial(text, action);
  }
}

function applied(text: string, changes: readonly TextChange[]): string {
  return [...changes]
    .sort((a, b) => b.from - a.from || b.to - a.to)
    .reduce((now, { from, to, insert }) => now.slice(0, from) + insert + now.slice(to), text);
}

/** A part of a snippet made a hole, with everything in the rule's snippets that has the same text. */
function opened(text: string, start: number, end: number, kind: string): string {
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
  const used = new Set(text.match(/[\p{L}_$][\p{L}\p{N}_$]*/gu));
  const isName = (name: string): boolean => {
    const scanner = ts.createScanner(ts.ScriptTarget.ES2022, true, ts.LanguageVariant.Standard, name);
    return scanner.scan() === ts.SyntaxKind.Identifier && scanner.getTokenEnd() === name.length;
  };
  // A word of the snippets is free as a name; a name that the file has itself is not.
  const own = new Set<string>();
  const visit = (node: ts.Node): void => {
    if (ts.isIdentifier(node)) own.add(node.text);
    ts.forEachChild(node, visit);
  };
  visit(ruleFile(text).file);
  if (isName(wish) && !own.has(wish)) return wish;
  for (let i = 2; ; i++) if (!used.has(`${wish}${i}`)) return isName(wish) ? `${wish}${i}` : `${wish}Here`;
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

/** One more entry in a list in braces or brackets. */
function appendTo(
  list: ts.NodeArray<ts.Node>,
  around: ts.Node,
  entry: string,
  file: ts.SourceFile,
): TextChange {
  const last = list.at(-1);
  if (!last) {
    const at = around.getStart(file) + 1;
    return { from: at, to: around.end - 1, insert: file.text[at - 1] === "[" ? entry : ` ${entry} ` };
  }
  const isBelow = file.text.slice(last.end, around.end).includes("\n");
  const indent = /[ \t]*$/.exec(file.text.slice(0, last.getStart(file)))![0];
  return { from: last.end, to: last.end, insert: isBelow ? `,\n${indent}${entry}` : `, ${entry}` };
}

function afterImports({ statements, text }: ts.SourceFile): number {
  const last = statements.findLast(ts.isImportDeclaration);
  if (!last) return 0;
  const line = text.indexOf("\n", last.end);
  return line < 0 ? text.length : line + 1;
}

/** The file with names imported from `uvran`. */
function importing(text: string, names: readonly string[]): string {
  const { file, imports } = ruleFile(text);
  const known = new Set(imports?.elements.map(({ name }) => name.text));
  const missing = names.filter((name) => !known.has(name));
  if (missing.length === 0) return text;
  if (!imports) return `import { ${missing.join(", ")} } from "uvran";\n${text}`;
  return missing.reduce((now, name) => {
    const again = ruleFile(now);
    const { elements } = again.imports!;
    const next = elements.find((one) => one.name.text.localeCompare(name) > 0);
    if (!next) return applied(now, [appendTo(elements, again.imports!, name, again.file)]);
    const at = next.getStart(again.file);
    return applied(now, [{ from: at, to: at, insert: `${name}, ` }]);
  }, file.text);
}

/** The file without holes that no snippet has any more, and without what was imported for them. */
function tidied(text: string): string {
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

function writtenOut(text: string, name: string, code: string): string {
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

interface Spec {
  readonly kind: string;
  readonly limits: readonly { readonly name: string; readonly source: string }[];
}

function spec(kind: string, limits: Spec["limits"]): string {
  if (limits.length === 0) return JSON.stringify(kind);
  return `{ kind: ${JSON.stringify(kind)}, ${limits.map(({ name, source }) => `${name}: ${source}`).join(", ")} }`;
}

function respecified(text: string, hole: string, make: (spec: Spec) => string): string {
  const known = partsOf(text).holes.find(({ name }) => name === hole);
  const { holes, file } = ruleFile(text);
  const node = holes.map(({ specs }) => valueOf(specs, hole)).find((one) => one !== undefined);
  if (!known || !node) throw new Error(`The file declares no hole "${hole}".`);
  return importingTags(applied(text, [{ from: node.getStart(file), to: node.end, insert: make(known) }]));
}

/** The file with the languages imported whose tags it uses. */
function importingTags(text: string): string {
  const tags = partsOf(text)
    .rules.flatMap(({ was, becomes }) => [...was, ...becomes])
    .map(({ language }): string => language);
  return importing(text, [...new Set(tags)]);
}

function renamed(text: string, from: string, to: string): string {
  if (from === to) return text;
  const scanner = ts.createScanner(ts.ScriptTarget.ES2022, true, ts.LanguageVariant.Standard, to);
  if (scanner.scan() !== ts.SyntaxKind.Identifier || scanner.getTokenEnd() !== to.length)
    throw new Error(`"${to}" is no name: write letters and digits, beginning with a letter.`);
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

function ruleAt({ rules }: RuleFile, index: number): RuleFile["rules"][number] {
  const found = rules[index];
  if (!found) throw new Error("The file has no such rule.");
  return found;
}

function asking(text: string, index: number, source: string, imports: readonly string[]): string {
  const known = ruleFile(text);
  const { file } = known;
  const { spec } = ruleAt(known, index);
  const given = valueOf(spec, "given");
  if (given && ts.isArrayLiteralExpression(given))
    return importing(applied(text, [appendTo(given.elements, given, source, file)]), imports);
  if (given) throw new Error("What is `given` is worked out by code here; write the condition there.");
  return importing(
    applied(text, [propertyBehind(spec, ["where", "was"], `given: [${source}]`, file)]),
    imports,
  );
}

/** A property put behind the first of some that a rule has. */
function propertyBehind(
  spec: ts.ObjectLiteralExpression,
  names: readonly string[],
  property: string,
  file: ts.SourceFile,
): TextChange {
  const behind = names
    .map((name) => spec.properties.find((one) => one.name && nameOf(one.name) === name))
    .find((one) => one !== undefined);
  const last = behind ?? spec.properties.at(-1);
  if (!last) return { from: spec.getStart(file) + 1, to: spec.getStart(file) + 1, insert: ` ${property} ` };
  const indent = /[ \t]*$/.exec(file.text.slice(0, last.getStart(file)))![0];
  return { from: last.end, to: last.end, insert: `,\n${indent}${property}` };
}

function notAsking(text: string, index: number, source: string): string {
  const known = ruleFile(text);
  const { file } = known;
  const given = valueOf(ruleAt(known, index).spec, "given");
  if (!given || !ts.isArrayLiteralExpression(given)) return text;
  const i = given.elements.findIndex((one) => one.getText(file) === source);
  const node = given.elements[i];
  if (!node) return text;
  if (given.elements.length === 1) {
    const property = given.parent;
    const end = file.text[property.end] === "," ? property.end + 1 : property.end;
    return applied(text, [{ from: property.getFullStart(), to: end, insert: "" }]);
  }
  const next = given.elements[i + 1];
  const range = next
    ? { from: node.getStart(file), to: next.getStart(file) }
    : { from: given.elements[i - 1]!.end, to: node.end };
  return applied(text, [{ ...range, insert: "" }]);
}

/** The file with one more trial of a rule. */
function withTrial(text: string, action: Extract<Action, { does: "trial" }>): string {
  const known = ruleFile(text);
  const { file } = known;
  const { spec } = ruleAt(known, action.rule);
  const trials = valueOf(spec, "trials");
  const list = trials && ts.isArrayLiteralExpression(trials) ? trials : undefined;
  if (trials && !list)
    throw new Error("The trials of this rule are worked out by code; write the trial there.");
  const added = list
    ? applied(text, [trialIn(list, action.source, file)])
    : applied(text, [propertyBehind(spec, [], `trials: [\n    ${action.source},\n  ]`, file)]);
  const now = ruleFile(added);
  const functions = now.trials.find(({ language, isPlain }) => language === action.language && isPlain);
  if (functions) {
    const has = functions.binding.elements.some(({ name }) => name.getText(now.file) === action.function);
    if (has) return added;
    return applied(added, [
      appendTo(functions.binding.elements, functions.binding, action.function, now.file),
    ]);
  }
  const at = Math.max(afterImports(now.file), ...now.holes.map(({ statement }) => statement.end + 1));
  const line = `const { ${action.function} } = trialsIn(${JSON.stringify(action.language)});\n`;
  return importing(
    applied(added, [{ from: at, to: at, insert: now.holes.length === 0 ? `\n${line}` : line }]),
    ["trialsIn"],
  );
}

/** One more trial on lines of its own. */
function trialIn(list: ts.ArrayLiteralExpression, source: string, file: ts.SourceFile): TextChange {
  const last = list.elements.at(-1);
  if (!last) return { from: list.getStart(file), to: list.end, insert: `[\n    ${source},\n  ]` };
  const from = last.end;
  const isComma = /^\s*,/.exec(file.text.slice(from));
  const at = from + (isComma?.[0].length ?? 0);
  const rest = file.text.slice(at, list.end);
  return {
    from: at,
    to: at,
    insert: `${isComma ? "" : ","}\n    ${source},${rest.includes("\n") ? "" : "\n  "}`,
  };
}
