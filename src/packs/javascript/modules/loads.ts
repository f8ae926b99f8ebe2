import type { SyntaxNode } from "../../../core.js";
import { inner } from "./brackets.js";
import type { Page } from "./page.js";
import { isKept, simplePattern } from "./pattern.js";
import type { Loading } from "./requires.js";

/** Writes what the file loads as imports. Gives those that stand in no statement of their own: what was loaded within functions. */
export function writeLoads(page: Page): string[] {
  const done = new Set<number>();
  for (const loading of page.file.loadings) {
    const { how, statement } = loading;
    if (how === "bare")
      page.replace({ start: statement.start, end: loading.call.end }, `import ${page.from(loading)}`);
    if (how !== "bound" || done.has(statement.id)) continue;
    done.add(statement.id);
    writeDeclaration(page, statement);
  }
  return writeInline(page);
}

/** How a declaration goes on: what is put ahead of it, in place of the word that begins all of them. */
interface Written {
  readonly head: string;
  readonly isImport: boolean;
}

/** The declarations of a statement, of which one at least becomes an import, as statements of their own. */
function writeDeclaration(page: Page, statement: SyntaxNode): void {
  const { text } = page.tree;
  const all = statement.parts.filter((part) => part.is("variable_declarator"));
  const word = text.slice(statement.start, all[0]!.start).split(/\s/)[0]!;
  const end = text.slice(all.at(-1)!.end, statement.end).includes(";") ? ";" : "";
  const written = all.map((one) => {
    const loading = page.file.loadings.find(
      ({ how, declarator }) => how === "bound" && declarator!.same(one),
    );
    return loading ? writeImport(page, loading, word, end) : { head: `${word} `, isImport: false };
  });
  for (const [i, { head, isImport }] of written.entries()) {
    const start = i === 0 ? statement.start : all[i - 1]!.end;
    if (i === 0) page.replace({ start, end: all[0]!.start }, head);
    else if (isImport || written[i - 1]!.isImport) part(page, start, all[i]!.start, end, head);
  }
}

/** Writes what is between two declarations as the end of one statement and the beginning of the next; comments stay. */
function part(page: Page, start: number, stop: number, end: string, head: string): void {
  const comments = page.tree.commentsIn(start, stop).map((id) => page.tree.node(id));
  const bounds = [start, ...comments.flatMap((one) => [one.start, one.end]), stop];
  for (let i = 0; i < bounds.length; i += 2) {
    const [from, to] = [bounds[i]!, bounds[i + 1]!];
    const gap = page.tree.text.slice(from, to).replace(",", "");
    const isFirst = i === 0;
    const isLast = i + 2 === bounds.length;
    const layout = gap.includes("\n") || isLast ? page.newLine : gap === "" ? "" : " ";
    page.replace({ start: from, end: to }, (isFirst ? end : "") + layout + (isLast ? head : ""));
  }
}

/** Writes one declaration as an import, or an import ahead of it where it does more than name what is loaded. */
function writeImport(page: Page, loading: Loading, word: string, end: string): Written {
  const { declarator, member, loaded, call } = loading;
  const target = declarator!.child("name")!;
  const value = declarator!.child("value")!;
  const isNamed = page.isNamed(loading);
  const from = page.from(loading);
  const whole = (text: string): Written => {
    page.replace(declarator!, text);
    return { head: "import ", isImport: true };
  };
  if (target.is("identifier") && isKept(target)) {
    if (loaded.is === "own" && page.forms.of(loaded.path).is === "nothing") return whole(from);
    if (!member) return whole(`${page.asWhole(loading, target.text)} from ${from}`);
    const named = member.text === target.text ? target.text : `${member.text} as ${target.text}`;
    if (isNamed) return whole(`{ ${named} } from ${from}`);
  }
  const pattern = simplePattern(target);
  const areKept = pattern !== undefined && pattern.length > 0 && pattern.every(({ local }) => isKept(local));
  if (areKept && isNamed && !member) {
    for (const pair of target.parts.filter((one) => one.is("pair_pattern")))
      page.replace({ start: pair.child("key")!.end, end: pair.child("value")!.start }, " as ");
    page.replace({ start: target.end, end: value.end }, ` from ${from}`);
    return { head: "import ", isImport: true };
  }
  const name = page.nameFor(loading);
  page.replace(call, name);
  return { head: `${page.importWhole(loading, name)}${end}${page.newLine}${word} `, isImport: true };
}

/** What is loaded within an expression gets a name. */
function writeInline(page: Page): string[] {
  const late: string[] = [];
  const { exported, loadings } = page.file;
  const form = page.forms.of(page.file.path);
  const list = form.is === "named" ? form.list : undefined;
  const whole = new Map<string, string>();
  for (const loading of loadings.filter(({ how }) => how === "inline")) {
    const { call, statement } = loading;
    if (isPassedOn(page, loading)) continue;
    const key = list?.find((one) => one.loading === loading);
    const put = exported.puts.find(({ group }) => inner(group.value).same(call));
    const path = page.from(loading).slice(1, -1);
    const known = whole.get(path);
    const name = known ?? page.nameFor(loading, key?.name ?? put?.name ?? pairKey(call));
    whole.set(path, name);
    page.names.set(call.id, name);
    const pair = call.parent;
    if (!key) page.replace(pairKey(call) === name && pair ? pair : call, name);
    if (known !== undefined) continue;
    const line = page.importWhole(loading, name) + page.lineEnd;
    const { body } = page.top;
    // Modules are loaded in the order of their imports.
    const isNext = !loadings.some(
      ({ how, statement: other }) =>
        (how === "bound" || how === "bare") && other.start >= body && other.start < statement.start,
    );
    if (loading.isLate) late.push(line);
    else if (isNext) page.putAt(body, [line], "last");
    else page.putBefore(statement, line);
  }
  return late;
}

/** Is it exported as it is loaded, so that no name is needed? */
export function isPassedOn({ file, object }: Page, { call }: Loading): boolean {
  const { whole, puts, reads } = file.exported;
  if (object) return false;
  if (whole)
    return puts.length === 0 && reads.length === 0 && !whole.declared && inner(whole.value).same(call);
  const put = puts.find(({ group }) => inner(group.value).same(call));
  const isOnly = put?.group.names.length === 1 && !put.group.declared;
  return isOnly && !reads.some(({ name }) => name === put.name);
}

/** The key under which a value stands in an object. */
function pairKey(value: SyntaxNode): string | undefined {
  const pair = value.parent;
  const key = pair?.is("pair") && pair.child("value")?.same(value) ? pair.child("key") : undefined;
  return key?.is("property_identifier") ? key.text : undefined;
}
