import {
  classesNamed,
  compile,
  isBuiltin,
  isLibraryFunction,
  matchAt,
  namesWanted,
  no,
  placeOf,
  shortened,
  unknown,
  writtenCode,
  yes,
} from "../../core.js";
import type {
  Answer,
  CompiledPattern,
  Handle,
  Hole,
  LanguageId,
  Need,
  Snippet,
  SyntaxNode,
} from "../../core.js";

/** What is called in an expression that acquires something: `open`, `new FileReader`, `File.open`. */
export function calleeOf(expression: SyntaxNode): { node: SyntaxNode; text: string } | undefined {
  const { calls, argumentLists, parenthesized } = expression.tree.language;
  let call: SyntaxNode | undefined = expression;
  while (call && (call.is(parenthesized) || call.kind.startsWith("await"))) call = call.firstPart;
  if (!call?.is(calls)) return undefined;
  const list = call.parts.find((part) => part.is(argumentLists));
  const text = call.text
    .slice(0, list ? list.start - call.start : undefined)
    .replace(/[(\s]+$/, "")
    .replace(/\s+/g, " ")
    .replace(/<[^()]*>/g, "");
  return { node: call.child("function") ?? call.firstPart ?? call, text };
}

/** Rows that a project names itself, for which its own functions are meant. */
const ofProject = new WeakSet<Handle>();

/** What a row's `acquire` calls. */
export function calledIn({ acquire }: Handle): string {
  return acquire.replace(/\(.*$/s, "").trim();
}

/** The row whose resource an expression acquires, and how sure that is; undefined where no row fits. */
export function handleOf(
  rows: readonly Handle[],
  expression: SyntaxNode,
): { row: Handle; answer: Answer } | undefined {
  const callee = calleeOf(expression);
  if (!callee) return undefined;
  let best: { row: Handle; answer: Answer } | undefined;
  for (const row of rows) {
    const answer = row.from === undefined ? byText(row, callee) : byOrigin(row, expression);
    if (!answer) continue;
    if (answer.is === "yes") return { row, answer };
    if (answer.is === "unknown") best ??= { row, answer };
  }
  return best;
}

function byText(row: Handle, callee: { node: SyntaxNode; text: string }): Answer | undefined {
  const { wanted, last } = wordsOf(row);
  return callee.text.endsWith(last) ? isCallOf(wanted, callee, ofProject.has(row)) : undefined;
}

/** Does an expression fit the code of a row, and do the names in it come from where the row says? */
function byOrigin(row: Handle, expression: SyntaxNode): Answer | undefined {
  const { patterns, needs } = writtenIn(row, expression.tree.language.id);
  const { calls, parenthesized } = expression.tree.language;
  let call: SyntaxNode | undefined = expression;
  while (call && (call.is(parenthesized) || call.kind.startsWith("await"))) call = call.firstPart;
  if (!call?.is(calls)) return undefined;
  const { tree, id } = call;
  const found = patterns.map((pattern) => matchAt(pattern, tree, id)).find((one) => one !== undefined);
  if (!found) return undefined;
  const answers = needs.map(({ hole, wanted }) => {
    const [node] = found.captures.get(hole)?.nodes ?? [];
    return node === undefined
      ? unknown("name.not-resolved", `where \`${wanted.name}\` comes from is not known`, call)
      : namesWanted(tree.node(node), wanted);
  });
  return answers.find(({ is }) => is === "no") ?? answers.find(({ is }) => is === "unknown") ?? answers[0];
}

interface Written {
  readonly patterns: readonly CompiledPattern[];
  readonly needs: readonly Need[];
}

const written = new WeakMap<Handle, Map<LanguageId, Written>>();

/** The code that acquires, ready to be looked for in files of a language. */
function writtenIn(row: Handle, language: LanguageId): Written {
  const known = written.get(row)?.get(language);
  if (known) return known;
  const { snippet, needs } = writtenCode(
    row.acquire,
    language,
    row.from === undefined ? {} : { from: row.from },
  );
  const one = { patterns: compile(snippet, language), needs };
  written.set(row, new Map([...(written.get(row) ?? []), [language, one]]));
  return one;
}

const words = new WeakMap<Handle, { readonly wanted: string; readonly last: string }>();

/** What a row calls, and the last word of it, which every call of it ends with. */
function wordsOf(row: Handle): { readonly wanted: string; readonly last: string } {
  let known = words.get(row);
  if (!known) {
    const wanted = calledIn(row);
    words.set(row, (known = { wanted, last: wanted.split(/[.:]+/).at(-1)! }));
  }
  return known;
}

function isCallOf(wanted: string, callee: { node: SyntaxNode; text: string }, isOwn: boolean): Answer {
  const { node, text } = callee;
  const { id } = node.tree.language;
  const shown = shortened(text);
  const isSame = text === wanted;
  const fromModules = ["python", "javascript", "typescript", "tsx"].includes(id);
  if (!fromModules) {
    const isQualified =
      /^new |[.:]/.test(wanted) && text.replace(/^new /, "").endsWith(`.${wanted.replace(/^new /, "")}`);
    if (!isSame && !isQualified) return no("resource.acquired", `\`${shown}\` is something else`);
    return isOwn ? yes("resource.acquired", `\`${shown}\` acquires it`, node) : meansLibrary(wanted, node);
  }
  const cut = wanted.lastIndexOf(".");
  if (cut < 0) {
    if (isSame && isOwn) return yes("resource.acquired", `\`${wanted}\` is a function of the project`, node);
    return isSame
      ? node.tree.language.builtins.includes(wanted) || id === "python"
        ? isBuiltin(wanted, node)
        : yes("resource.acquired", `\`${wanted}\` is a function of the project`, node)
      : no("resource.acquired", `\`${shown}\` is something else`);
  }
  const answers = splitsOf(wanted).map(([module, name]) => namesWanted(node, { module, name }));
  const sure = answers.find(({ is }) => is === "yes");
  if (sure) return sure;
  return isSame && answers.some(({ is }) => is === "unknown")
    ? unknown("name.not-resolved", `where \`${shown}\` comes from is not known`, node)
    : no("resource.acquired", `\`${shown}\` is something else`);
}

/** Is what is called what the library has under that name, and not a class or a function of the project? */
function meansLibrary(wanted: string, node: SyntaxNode): Answer {
  const words = wanted.replace(/^new /, "").split(/[.:]+/);
  const shown = shortened(wanted);
  if (words.length === 1 && !wanted.startsWith("new ")) {
    const meant = isLibraryFunction(node);
    return meant.is === "no" ? unknown(meant.evidence.code, meant.evidence.says, meant.evidence) : meant;
  }
  const [own] = words.flatMap((word) => (/^[A-Z]/.test(word) ? classesNamed(node.tree, word).classes : []));
  return own
    ? unknown("name.library", `the project has a \`${own.name}\` of its own (${placeOf(own)})`, node)
    : yes("resource.acquired", `\`${shown}\` acquires it`, node);
}

/** `fs.promises.open` is `promises.open` of `fs`, or `open` of `fs.promises`. */
function splitsOf(wanted: string): [module: string, name: string][] {
  const words = wanted.split(".");
  return words.slice(1).map((_, i) => [words.slice(0, i + 1).join("."), words.slice(i + 1).join(".")]);
}

/** The rows of a language, those of the project first. */
export function rowsFor(
  language: Handle["language"],
  shipped: readonly Handle[],
  own: readonly Handle[] = [],
): readonly Handle[] {
  for (const row of own) ofProject.add(row);
  return [...own, ...shipped].filter((row) => row.language === language);
}

/** A release as a snippet, with a hole in the place of `handle`. */
export function releaseSnippet(language: Handle["language"], release: string, hole: Hole): Snippet {
  return writtenCode(release.replace(/;$/, ""), language, { holes: { handle: hole } }).snippet;
}

/** The distinct ways in which the rows release, in their order. */
export function releasesOf(rows: readonly Handle[]): readonly string[] {
  return [...new Set(rows.map(({ release }) => release.replace(/;$/, "")))];
}

/** The names of the functions and methods that release. */
export function wordsOfReleases(rows: readonly Handle[]): string[] {
  return [...new Set(releasesOf(rows).flatMap((release) => /\w+(?=\()/.exec(release) ?? []))];
}
