import type { SyntaxNode } from "../../../core.js";
import { inner } from "./brackets.js";
import type { AsFilled, PutGroup, Whole } from "./exported.js";
import { isPassedOn } from "./loads.js";
import { steady } from "./named-list.js";
import { nameOfPath } from "./names.js";
import { NotAModule } from "./not-a-module.js";
import type { Page } from "./page.js";
import { isKept } from "./pattern.js";
import type { Loading } from "./requires.js";

const DECLARED = ["function_expression", "generator_function", "class"];

/** Writes what a file exports. Gives what must be declared before the first statement. */
export class ExportsWriter {
  readonly #page: Page;
  /** The variables that hold what is exported, by the names of the exports. */
  readonly #locals = new Map<string, string>();

  constructor(page: Page) {
    this.#page = page;
  }

  write(): string[] {
    const { whole, emptied, puts, reads } = this.#page.file.exported;
    const { object } = this.#page;
    if (object) return this.#writeObject(object);
    if (whole) {
      this.#writeWhole(whole);
      return [];
    }
    if (emptied) this.#page.drop(emptied);
    for (const group of new Set(puts.map((put) => put.group))) this.#writePut(group);
    for (const { node, name } of reads)
      this.#page.replace(node, this.#page.seen(this.#locals.get(name!)!, node));
    return [];
  }

  #loadingOf(value: SyntaxNode): Loading | undefined {
    return this.#page.file.loadings.find(({ call, how }) => how === "inline" && call.same(inner(value)));
  }

  /** The variable that already has a value. */
  #variableOf(value: SyntaxNode): string | undefined {
    const loading = this.#loadingOf(value);
    if (loading) return this.#page.names.get(loading.call.id);
    const of = inner(value);
    return of.is("identifier") && steady(of) ? of.text : undefined;
  }

  /** `export { local as name }`. */
  #listed(local: string, names: readonly string[]): string {
    for (const name of names) this.#locals.set(name, local);
    return `export { ${names.map((name) => (name === local ? name : `${local} as ${name}`)).join(", ")} }`;
  }

  #after(statement: SyntaxNode, line: string): void {
    const end = statement.text.endsWith(";") ? ";" : "";
    this.#page.insert(statement.end, this.#page.newLine + line + end);
  }

  /** The exports as an object of the file, which is exported whole. */
  #writeObject({ mentions, isSet }: AsFilled): string[] {
    const word = nameOfPath(this.#page.file.path);
    const name = this.#page.choose([word, `${word}Module`, "api"]);
    for (const node of mentions) this.#page.replace(node, this.#page.seen(name, node));
    const { tree, newLine, lineEnd } = this.#page;
    const last = tree.root.lastPart!;
    const line = `export default ${name}${lineEnd}`;
    this.#page.insert(last.end, newLine + newLine + line);
    return [`${isSet ? "let" : "const"} ${name} = {}${lineEnd}`];
  }

  #writeWhole(whole: Whole): void {
    const { statement, assignment, value, declared } = whole;
    const { puts, reads } = this.#page.file.exported;
    const { forms, file } = this.#page;
    const head = { start: assignment.start, end: value.start };
    const form = forms.of(file.path);
    if (form.is === "named" && form.list) {
      this.#page.replace(head, "export ");
      for (const { name, member, value: of } of form.list) {
        const local = this.#variableOf(of) ?? of.text;
        this.#locals.set(name, local);
        const text = local === name ? name : `${local} as ${name}`;
        if (text !== member.text) this.#page.replace(member, text);
      }
      for (const { node, name } of reads)
        this.#page.replace(node, this.#page.seen(this.#locals.get(name!)!, node));
      return;
    }
    const passed = this.#loadingOf(value);
    if (passed && isPassedOn(this.#page, passed)) {
      const all = this.#isNamespace(passed) ? "*" : "{ default }";
      return this.#page.replace(assignment, `export ${all} from ${this.#page.from(passed)}`);
    }
    if (declared) {
      if (!isKept(declared)) throw new NotAModule(declared, `\`${declared.text}\` gets another value`);
      this.#page.replace(head, "");
      this.#after(statement, `export default ${declared.text}`);
      return this.#writeMembers(declared.text);
    }
    if (puts.length === 0 && reads.length === 0) return this.#writeDefault(whole);
    const variable = this.#variableOf(value);
    if (variable !== undefined) {
      this.#page.replace(head, "export default ");
      return this.#writeMembers(variable);
    }
    const own = value.child("name");
    const word = nameOfPath(file.path);
    const places = [...puts.map(({ assignment }) => assignment), ...reads.map(({ node }) => node)];
    const isOwn =
      own !== undefined &&
      this.#page.isFree(own.text, value) &&
      places.every((at) => this.#page.isSeen(own.text, at, own));
    const name = isOwn ? own.text : this.#page.choose([word, `${word}Module`]);
    this.#page.replace(head, `const ${name} = `);
    this.#after(statement, `export default ${name}`);
    this.#writeMembers(name, own);
  }

  #isNamespace({ loaded }: Loading): boolean {
    return loaded.is === "own" && this.#page.forms.of(loaded.path).is === "named";
  }

  /** `module.exports.seal` is a member of what is exported. */
  #writeMembers(name: string, own?: SyntaxNode): void {
    const { puts, reads } = this.#page.file.exported;
    for (const { assignment } of puts) {
      const target = assignment.child("left")!;
      this.#page.replace(target.child("object")!, this.#page.seen(name, target, own));
    }
    for (const { node, name: member } of reads)
      this.#page.replace(
        member === undefined ? node : node.child("object")!,
        this.#page.seen(name, node, own),
      );
  }

  #writeDefault({ assignment, value, statement }: Whole): void {
    const isDeclared = value.is(DECLARED);
    const name = isDeclared ? value.child("name")?.text : undefined;
    const looksDeclared = /^(async\s+function|function|class)\b/.test(value.text);
    const mustWrap =
      value.is("sequence_expression") ||
      (looksDeclared && !isDeclared) ||
      (name !== undefined && !this.#page.isFree(name, value));
    this.#page.replace(
      { start: assignment.start, end: value.start },
      mustWrap ? "export default (" : "export default ",
    );
    if (mustWrap) this.#page.insert(value.end, ")");
    else if (isDeclared) this.#dropSemicolon(statement, value);
  }

  /** A declaration ends without a semicolon. */
  #dropSemicolon(statement: SyntaxNode, value: SyntaxNode): void {
    if (statement.text.endsWith(";") && value.end === statement.end - 1)
      this.#page.replace({ start: value.end, end: statement.end }, "");
  }

  #writePut({ outer, statement, value, declared, names }: PutGroup): void {
    const of = inner(value);
    const [first, ...more] = [...names].reverse() as [string, ...string[]];
    const loading = this.#loadingOf(value);
    if (loading && isPassedOn(this.#page, loading)) {
      const what = this.#isNamespace(loading) ? `* as ${first}` : `{ default as ${first} }`;
      return this.#page.replace(outer, `export ${what} from ${this.#page.from(loading)}`);
    }
    const head = { start: outer.start, end: value.start };
    if (declared) {
      if (!isKept(declared)) throw new NotAModule(declared, `\`${declared.text}\` gets another value`);
      this.#page.replace(head, "");
      const others = names.filter((name) => name !== declared.text);
      this.#locals.set(declared.text, declared.text);
      if (others.length < names.length) this.#page.insert(statement.start, "export ");
      if (others.length > 0) this.#after(statement, this.#listed(declared.text, others));
      return;
    }
    const known = this.#variableOf(value);
    if (known !== undefined) return this.#page.replace(outer, this.#listed(known, [first, ...more]));
    const isFree = this.#page.isFree(first, value) && !this.#page.tree.language.builtins.includes(first);
    const own = of.child("name")?.text;
    if (!isFree) {
      const local = this.#page.choose([`exported${first[0]!.toUpperCase()}${first.slice(1)}`]);
      this.#page.replace(head, `const ${local} = `);
      return this.#after(statement, this.#listed(local, [first, ...more]));
    }
    if (of.is(DECLARED) && of.same(value) && (own === undefined || own === first)) {
      this.#page.replace(head, "export ");
      if (own === undefined) this.#nameIt(of, first);
      this.#dropSemicolon(statement, value);
    } else {
      this.#page.replace(head, `export const ${first} = `);
    }
    this.#locals.set(first, first);
    if (more.length > 0) this.#after(statement, this.#listed(first, more));
  }

  /** Gives a function or class that has no name one. */
  #nameIt(node: SyntaxNode, name: string): void {
    if (node.is("class")) return this.#page.insert(node.start + "class".length, ` ${name}`);
    const list = node.child("parameters")!;
    const head = this.#page.tree.text.slice(node.start, list.start);
    const word = /^async\b/.test(head) ? "async function" : "function";
    this.#page.replace(
      { start: node.start, end: list.start },
      `${word}${head.includes("*") ? "*" : ""} ${name}`,
    );
  }
}
