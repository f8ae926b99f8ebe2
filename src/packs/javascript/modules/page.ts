import { nameInFile } from "../../../core.js";
import type { Edit, SyntaxNode, SyntaxTree } from "../../../core.js";

import type { AsFilled } from "./exported.js";
import type { Forms } from "./forms.js";
import { asImported } from "./loaded.js";
import { isPlainName, nameOfPath } from "./names.js";
import { NotAModule } from "./not-a-module.js";
import type { Reading } from "./reading.js";
import type { Loading } from "./requires.js";
import { strictDirective } from "./strict.js";

/** A file that is being written as a module: its edits so far, and the names that are taken. */
export class Page {
  readonly file: Reading;
  readonly forms: Forms;
  readonly tree: SyntaxTree;
  readonly newLine: string;
  /** A semicolon, where the file ends its statements with one. */
  readonly lineEnd: string;
  /** Where the first import stands, or would, and the first statement that is more than imports. */
  readonly top: { readonly imports: number; readonly body: number };
  /** The names of calls that are within expressions, which a name takes the place of. */
  readonly names = new Map<number, string>();
  readonly #chosen = new Set<string>();
  readonly #edits: Edit[] = [];
  /** Lines to be put in front of what begins at an offset. */
  readonly #ahead = new Map<number, string[]>();

  constructor(file: Reading, forms: Forms) {
    this.file = file;
    this.forms = forms;
    this.tree = file.tree;
    this.newLine = file.tree.text.includes("\r\n") ? "\r\n" : "\n";
    this.lineEnd = /;[ \t]*\r?$/m.test(file.tree.text) ? ";" : "";
    this.top = this.#top();
  }

  /** The exports, where they stay an object that the file fills. */
  get object(): AsFilled | undefined {
    const { object, whole } = this.file.exported;
    return whole || this.forms.of(this.file.path).is === "named" ? undefined : object;
  }

  #top(): { imports: number; body: number } {
    const { loadings } = this.file;
    const isImported = (node: SyntaxNode): boolean =>
      loadings.some(
        ({ how, statement, declarator }) =>
          (how === "bare" && statement.same(node)) || (how === "bound" && declarator!.same(node)),
      );
    const isImport = (node: SyntaxNode): boolean =>
      node.is("expression_statement")
        ? isImported(node)
        : node.parts.length > 0 && node.parts.every(isImported);
    const directive = strictDirective(this.tree);
    const code = this.tree.root.parts.filter(
      (part) => !part.is(["comment", "hash_bang_line"]) && !part.same(directive),
    );
    const [first] = code;
    if (!first) return { imports: 0, body: 0 };
    const body = code.find((part) => !isImport(part));
    const holdsImport = isImport(first) || first.parts.some(isImported);
    const imports = holdsImport ? this.#lineStart(first.start) : this.startOf(first);
    if (!body) return { imports, body: this.tree.text.length };
    return { imports, body: body.same(first) ? imports : this.startOf(body) };
  }

  /** All edits, those that touch as one. Throws a NotAModule where a comment would be lost. */
  edits(): Edit[] {
    for (const [start, lines] of this.#ahead)
      this.insert(start, lines.map((line) => line + this.newLine).join(""));
    const result: Edit[] = [];
    for (const edit of [...this.#edits].sort((a, b) => a.start - b.start || a.end - b.end)) {
      const [comment] = this.tree.commentsIn(edit.start, edit.end);
      if (comment !== undefined)
        throw new NotAModule(
          this.tree.node(comment),
          "a comment stands in code that is written anew",
          "edit.comment",
        );
      const last = result.at(-1);
      if (last?.end !== edit.start) result.push(edit);
      else result[result.length - 1] = { start: last.start, end: edit.end, text: last.text + edit.text };
    }
    return result;
  }

  replace({ start, end }: { start: number; end: number }, text: string): void {
    this.#edits.push({ start, end, text });
  }

  insert(at: number, text: string): void {
    this.replace({ start: at, end: at }, text);
  }

  /** Puts lines in front of what begins at an offset, ahead of those that are there already or behind them. */
  putAt(start: number, lines: readonly string[], where: "first" | "last"): void {
    const there = this.#ahead.get(start) ?? [];
    this.#ahead.set(start, where === "first" ? [...lines, ...there] : [...there, ...lines]);
  }

  /** Puts a line in front of a statement and of what is said of it. */
  putBefore(statement: SyntaxNode, line: string): void {
    this.putAt(this.startOf(statement), [line], "last");
  }

  /** Where a statement begins with its line and the comments that speak of it. */
  startOf(statement: SyntaxNode): number {
    let { start } = statement;
    const comments = this.tree.comments
      .map((id) => this.tree.node(id))
      .filter(({ end }) => end <= statement.start);
    for (const comment of comments.reverse()) {
      const between = this.tree.text.slice(comment.end, start);
      const isOwnLine = this.tree.text.slice(this.tree.lineStart(comment.line), comment.start).trim() === "";
      if (!/^[ \t]*\r?\n[ \t]*$/.test(between) || !isOwnLine || comment.start === 0) break;
      start = comment.start;
    }
    return this.#lineStart(start);
  }

  /** The start of a line where only blanks stand ahead of a place on it; else the place. */
  #lineStart(at: number): number {
    const line = this.tree.lineStart(this.tree.lineAt(at));
    return this.tree.text.slice(line, at).trim() === "" ? line : at;
  }

  /** Takes a statement out, and the line with it where nothing else stands there. */
  drop(statement: SyntaxNode): void {
    const { text } = this.tree;
    const start = this.tree.lineStart(statement.line);
    const rest = /^[ \t]*(\r?\n|$)/.exec(text.slice(statement.end));
    if (!rest || text.slice(start, statement.start).trim() !== "") return this.replace(statement, "");
    let end = statement.end + rest[0].length;
    const isApart = start === 0 || /\n[ \t]*\r?\n$/.test(text.slice(0, start));
    const blank = isApart ? /^([ \t]*\r?\n)+/.exec(text.slice(end)) : undefined;
    if (blank) end += blank[0].length;
    this.replace({ start, end }, "");
  }

  /** Is a name that of a variable somewhere in the file, or one that the language has? */
  isTaken(name: string): boolean {
    if (this.#chosen.has(name) || this.tree.language.builtins.includes(name)) return true;
    return nameInFile(name, this.tree).references.some(({ member }) => !member);
  }

  /** The first of some names that may be used, else the last one with a number; it is taken then. */
  choose(wishes: readonly string[]): string {
    const last = wishes.at(-1)!;
    let chosen = wishes.find((one) => isPlainName(one) && !this.isTaken(one));
    for (let i = 2; chosen === undefined; i++) if (!this.isTaken(`${last}${i}`)) chosen = `${last}${i}`;
    this.#chosen.add(chosen);
    return chosen;
  }

  /** A name for what is imported whole. */
  nameFor({ loaded, name }: Loading, wish?: string): string {
    const word = nameOfPath(loaded.is === "own" ? loaded.path : name.replace(/^node:/, ""));
    return this.choose([...(wish === undefined ? [] : [wish]), word, `${word}Module`]);
  }

  /** The module of an import, in the quotes that are there. */
  from({ text, name, loaded }: Loading): string {
    const quote = text.text[0]!;
    return quote + (loaded.is === "own" ? asImported(name, this.file.path, loaded.path) : name) + quote;
  }

  /** Can single names be imported of it? */
  isNamed({ loaded }: Loading): boolean {
    return loaded.is === "own" ? this.forms.of(loaded.path).is === "named" : loaded.is === "built in";
  }

  /** What comes ahead of `from` where all is imported under one name. */
  asWhole(loading: Loading, local: string): string {
    return loading.loaded.is === "own" && this.isNamed(loading) ? `* as ${local}` : local;
  }

  importWhole(loading: Loading, local: string): string {
    return `import ${this.asWhole(loading, local)} from ${this.from(loading)}`;
  }

  /**
   * Does nothing in the file have a name, other than what is declared within a value? A function that gets the name is seen by
   * all others.
   */
  isFree(name: string, value: SyntaxNode): boolean {
    return nameInFile(name, this.tree).references.every(
      ({ member, to }) => member || (to !== undefined && value.holds(to.scope)),
    );
  }

  /** Does a name at the top of the file mean the same at a place? `own` is another name of the same value. */
  isSeen(name: string, at: SyntaxNode, own?: SyntaxNode): boolean {
    return nameInFile(name, this.tree).declarations.every(
      ({ scope, at: names }) =>
        scope.is("program") || !scope.holds(at) || names.every((one) => one.same(own)),
    );
  }

  /** The name. Throws a NotAModule where it means something else at a place. */
  seen(name: string, at: SyntaxNode, own?: SyntaxNode): string {
    if (!this.isSeen(name, at, own))
      throw new NotAModule(at, `another variable that is called \`${name}\` is seen here`, "name.free");
    return name;
  }
}
