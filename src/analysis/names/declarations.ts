import {
  oncePerKey,
  type DeclaredAs,
  type Does,
  type NameSpace,
  type SyntaxNode,
  type SyntaxTree,
} from "../../syntax/index.js";
import { occurrencesAt, receiverOf, useOf, type Occurrence } from "./use.js";
import { typeNameOf } from "./annotation.js";
import { bodyAround, scopeOfDeclaration, scopesAround, type Scope } from "./scopes.js";

/** Something that a file gives a name to. Several names declare the same thing where a language allows it. */
export interface Declaration {
  readonly name: string;
  readonly as: DeclaredAs;
  readonly spaces: readonly NameSpace[];
  /** The node in which the name is seen. */
  readonly scope: SyntaxNode;
  /** The names that declare it, in the order of the file. */
  readonly at: readonly SyntaxNode[];
}

/** One use of a name, and what it refers to. */
export interface Reference {
  readonly node: SyntaxNode;
  readonly does: Does;
  /** What the name stands for, where this file declares it. */
  readonly to: Declaration | undefined;
  /** Why it cannot be told what the name stands for. Without it, and without `to`, nothing in the file declares it. */
  readonly unknown?: string;
  /** A variable of a function around the one that the name stands in. */
  readonly captured: boolean;
  /** A member of an object, such as `weight` in `hive.weight`. */
  readonly member: boolean;
  /** The name of an argument, which may be that of a parameter. */
  readonly named: boolean;
}

interface Entry {
  readonly declaration: Declaration & { at: SyntaxNode[] };
  readonly fromHere: boolean;
  readonly onSomePaths: boolean;
}

/** All that the uses of one name in one file come to. */
export class NameInFile {
  readonly declarations: Declaration[] = [];
  /** Places at which the facts do not say what the name does. */
  readonly unclear: readonly SyntaxNode[];
  /** By the node that is the name. */
  readonly #occurrences = new Map<number, Occurrence[]>();
  readonly #resolved = new Map<number, readonly Reference[]>();
  #references: readonly Reference[] | undefined;
  #ofDeclaration: Map<Declaration, Reference[]> | undefined;
  readonly #entries = new Map<string, Entry>();
  /** Scopes in which the name is one of an outer scope, by node. */
  readonly #shared = new Map<number, "file" | "function">();

  constructor(
    readonly name: string,
    readonly tree: SyntaxTree,
  ) {
    const nodes = tree.named(name).map((id) => tree.node(id));
    for (const node of nodes) this.#occurrences.set(node.id, occurrencesAt(node));
    this.unclear = nodes.filter((node) => useOf(node) === "unknown");
    const all = [...this.#occurrences.values()].flat();
    for (const occurrence of all) this.#share(occurrence);
    for (const occurrence of all) this.#declare(occurrence);
  }

  /** All uses of the name, in the order of the file. */
  get references(): readonly Reference[] {
    return (this.#references ??= [...this.#occurrences.keys()].flatMap((id) => this.#at(id)));
  }

  /** The uses that one name makes; one, but for names that do two things at once. */
  at(node: SyntaxNode): readonly Reference[] {
    return this.#at(node.id);
  }

  #at(id: number): readonly Reference[] {
    let found = this.#resolved.get(id);
    if (!found) {
      found = (this.#occurrences.get(id) ?? []).map((occurrence) =>
        this.#unlessHidden(this.#resolve(occurrence)),
      );
      this.#resolved.set(id, found);
    }
    return found;
  }

  /** A use without what it refers to, where code that the parser did not see has the name in it too. */
  #unlessHidden(reference: Reference): Reference {
    const { to } = reference;
    const hidden = this.tree
      .hiddenWith(this.name)
      .find(({ start, end }) => !to || (to.scope.start <= start && end <= to.scope.end));
    if (!hidden) return reference;
    const line = this.tree.lineAt(hidden.start);
    return {
      ...reference,
      to: undefined,
      unknown: `code that the parser did not see has the name too (line ${line})`,
    };
  }

  /** The uses that refer to a declaration. */
  of(declaration: Declaration): readonly Reference[] {
    if (!this.#ofDeclaration) {
      this.#ofDeclaration = new Map();
      for (const reference of this.references) {
        if (!reference.to) continue;
        const list = this.#ofDeclaration.get(reference.to);
        if (list) list.push(reference);
        else this.#ofDeclaration.set(reference.to, [reference]);
      }
    }
    return this.#ofDeclaration.get(declaration) ?? [];
  }

  readonly #changes = new Map<Declaration, readonly Reference[]>();
  /** The uses of a declaration that do more than read or declare it. */
  changes(declaration: Declaration): readonly Reference[] {
    let found = this.#changes.get(declaration);
    if (!found) {
      found = this.of(declaration).filter(({ does }) => does !== "read" && does !== "declare");
      this.#changes.set(declaration, found);
    }
    return found;
  }

  #loose: readonly Reference[] | undefined;
  /** The uses of which it is not certain what they refer to, and those that only name an argument. */
  get loose(): readonly Reference[] {
    return (this.#loose ??= this.references.filter(({ named, unknown }) => named || unknown !== undefined));
  }

  #share({ node, use }: Occurrence): void {
    const { declares } = use;
    if (declares?.sharedWith) this.#shared.set(bodyAround(node).id, declares.sharedWith);
  }

  #declare(occurrence: Occurrence): void {
    const { node, use } = occurrence;
    const { declares } = use;
    if (!declares || declares.sharedWith) return;
    if (declares.ifNew && typeof this.#find(occurrence) === "object") return;
    const spaces = declares.spaces ?? ["value"];
    let scope = node.tree.language.binding.reopened(scopeOfDeclaration(node, declares));
    const sharedWith = this.#shared.get(scope.id);
    if (sharedWith === "file") scope = node.tree.root;
    if (sharedWith === "function") return;
    const keys = spaces.map((space) => `${scope.id} ${space}`);
    const { oneForAll } = node.tree.language.binding;
    const alike = spaces.some((space) => oneForAll.includes(space)) ? oneForAll : spaces;
    const existing = alike
      .map((space) => this.#entries.get(`${scope.id} ${space}`))
      .find((entry) => entry !== undefined);
    if (existing) {
      existing.declaration.at.push(node);
      for (const key of keys) if (!this.#entries.has(key)) this.#entries.set(key, existing);
      return;
    }
    const declaration = { name: this.name, as: declares.as, spaces, scope, at: [node] };
    const { fromHere = false, onSomePaths = false } = declares;
    const entry = { declaration, fromHere, onSomePaths };
    this.declarations.push(declaration);
    for (const key of keys) this.#entries.set(key, entry);
  }

  #resolve(occurrence: Occurrence): Reference {
    const { node, use } = occurrence;
    const { binding } = node.tree.language;
    const { memberOf, named = false, does } = use;
    const base = { node, does, captured: false, member: memberOf !== undefined, named };
    if (binding.implicit(node)) return { ...base, to: undefined };
    const implied = use.memberOf === undefined ? this.#implied(occurrence) : undefined;
    if (implied) return { ...base, ...implied };
    if (use.memberOf !== undefined) return { ...base, ...this.#member(occurrence) };
    const found = this.#find(occurrence);
    if (found === undefined || typeof found === "string") {
      return { ...base, to: undefined, ...(found === undefined ? {} : { unknown: found }) };
    }
    const captured = isLocalScope(found.scope) && !bodyAround(node).same(bodyOf(found.scope));
    return { ...base, to: found, captured };
  }

  readonly #impliedBy = new Map<number, Declaration>();
  /** The parameter that the language itself declares for a name, unless something nearer has the name. */
  #implied(occurrence: Occurrence): Pick<Reference, "to" | "captured"> | undefined {
    const { node } = occurrence;
    const word = node.tree.language.binding.implied(node);
    const scope = word?.parent;
    if (!word || !scope) return undefined;
    const found = this.#find(occurrence);
    if (typeof found === "object" && scope.holds(found.scope)) return undefined;
    let to = this.#impliedBy.get(word.id);
    if (!to) {
      to = { name: this.name, as: "parameter", spaces: ["value"], scope, at: [word] };
      this.#impliedBy.set(word.id, to);
    }
    return { to, captured: !bodyAround(node).same(bodyOf(scope)) };
  }

  /** What a name without a receiver refers to; a sentence where that cannot be told. */
  #find({ node, use }: Occurrence): Declaration | string | undefined {
    const { binding } = node.tree.language;
    let doubt: string | undefined;
    for (const space of use.spaces ?? use.declares?.spaces ?? ["value"]) {
      const found = this.#findIn(node, space, use.outer ?? false);
      if (typeof found === "object") return found;
      doubt ??= found;
    }
    if (doubt !== undefined) return doubt;
    if (binding.dynamicScope) return `\`${this.name}\` may be a variable of whatever calls this code`;
    const hidden = binding.bareMembers && this.declarations.find(({ scope }) => isOpenScope(scope));
    return hidden ? `\`${this.name}\` may be the one declared at line ${hidden.at[0]!.line}` : undefined;
  }

  #findIn(node: SyntaxNode, space: NameSpace, outer: boolean): Declaration | string | undefined {
    const { binding } = node.tree.language;
    let doubt: string | undefined;
    /** A type that a parent class may hold, which what the file itself declares or imports goes before. */
    let inherited: string | undefined;
    let toSkip = outer ? 1 : 0;
    const list = binding.parameterLists.length > 0 ? parameterListAround(node) : undefined;
    let crossed = false;
    let skipTo: "file" | "function" | undefined;
    for (const scope of scopesAround(node)) {
      if (toSkip > 0) {
        if (scope.facts.is === "function") toSkip--;
        continue;
      }
      if (binding.objectScopes.includes(scope.node.kind)) {
        return `\`${this.name}\` may be a property of an object that is searched for names`;
      }
      if (skipTo === "file" && scope.facts.is !== "file") continue;
      if (skipTo === "function" && scope.facts.is !== "function") {
        if (scope.facts.is === "file") return undefined;
        continue;
      }
      skipTo = this.#shared.get(scope.node.id);
      if (skipTo !== undefined) continue;
      const entry = this.#entries.get(`${scope.node.id} ${space}`);
      const isHidden = (crossed && scope.facts.shallow) ?? false;
      if (entry && !isHidden && isSeen(entry, node, list, scope)) {
        if (doubt !== undefined) return doubt;
        if (!entry.onSomePaths || this.#entries.size === 1) return entry.declaration;
        doubt = `\`${this.name}\` is bound on some paths only`;
        if (![...this.#entries.values()].some((other) => other !== entry && isAround(other, scope))) {
          return entry.declaration;
        }
      }
      if (scope.facts.is === "function" || scope.facts.is === "class") crossed = true;
      if (scope.facts.closed && space === "value") return doubt;
      const owner = binding.ownerOf(scope.node);
      const ownEntry = typeof owner === "object" && this.#entries.get(`${owner.id} ${space}`);
      if (ownEntry) return doubt ?? ownEntry.declaration;
      if (space === "type") inherited ??= this.#inherited(scope, space);
      else doubt ??= this.#inherited(scope, space);
    }
    return doubt ?? inherited;
  }

  /** Members that are seen without a receiver may come from elsewhere, before any name of the scopes further out. */
  #inherited({ node, facts }: Scope, space: NameSpace): string | undefined {
    const { binding } = node.tree.language;
    if (!binding.bareMembers) return undefined;
    const owner = facts.is === "function" ? binding.ownerOf(node) : facts.is === "class" ? node : undefined;
    if (owner === undefined) return undefined;
    if (owner === "elsewhere") return `\`${this.name}\` may be a member of a class in another file`;
    const parent = binding.parentsOf(owner)[0];
    if (!parent || space === "member") return undefined;
    return `\`${this.name}\` may be inherited through \`${parent.text.split("\n")[0]}\``;
  }

  #member({ node, use }: Occurrence): { to: Declaration | undefined; unknown?: string } {
    const { binding } = node.tree.language;
    const receiver = receiverOf(node, use);
    const owner = use.declares
      ? undefined
      : receiver && (binding.selfOf(receiver) ?? classNamed(receiver) ?? classOfObject(receiver));
    const isNamespace = owner !== undefined && !isClass(owner);
    for (const space of [...(use.spaces ?? ["member"]), ...(isNamespace ? (["value"] as const) : [])]) {
      const scope = owner ?? (use.declares && scopeOfDeclaration(node, use.declares));
      const entry = scope && this.#entries.get(`${scope.id} ${space}`);
      if (entry) return { to: entry.declaration };
    }
    const of = receiver ? `\`${receiver.text.split("\n")[0]}\`` : "its object";
    return { to: undefined, unknown: `\`${this.name}\` is a member of ${of}, whose class is not known` };
  }
}

/** The class or namespace of this file that a receiver names, as in `Hive.count` and `Hive::count`. */
function classNamed(receiver: SyntaxNode): SyntaxNode | undefined {
  const { leaves, reopened } = receiver.tree.language.binding;
  if (leaves[receiver.kind] === undefined) return undefined;
  const to = referencesAt(receiver).find((reference) => !reference.member)?.to;
  if (!to || !["class", "namespace", "type"].includes(to.as)) return undefined;
  const body = bodyNamed(to.at[0]!);
  return body && reopened(body);
}

/** The class of this file that an object is declared to be of: `other` in `f(const Hive& other)`. */
function classOfObject(receiver: SyntaxNode): SyntaxNode | undefined {
  const { leaves, reopened, typesAreKept } = receiver.tree.language.binding;
  if (!typesAreKept || leaves[receiver.kind] === undefined) return undefined;
  const to = referencesAt(receiver).find((reference) => !reference.member)?.to;
  if (to?.at.length !== 1 || (to.as !== "local" && to.as !== "parameter")) return undefined;
  const written = classesHere(typeNameOf(to.at[0]!), receiver.tree);
  // Where the type is left to the compiler, it is that of the object that is made.
  const classes = written.length > 0 ? written : classesHere(madeAt(to.at[0]!), receiver.tree);
  const body = classes.length === 1 ? bodyNamed(classes[0]!.at[0]!) : undefined;
  return body && reopened(body);
}

function classesHere(name: string | undefined, tree: SyntaxTree): readonly Declaration[] {
  return name === undefined ? [] : nameInFile(name, tree).declarations.filter(({ as }) => as === "class");
}

/** The name of the class of which a variable's first value is an object, where nothing but its making stands there. */
function madeAt(name: SyntaxNode): string | undefined {
  const { parent } = name;
  const value = parent?.child("value") ?? (parent?.lastPart?.same(name) ? undefined : parent?.lastPart);
  const place = value && name.tree.language.types.creations[value.kind];
  const type = place === undefined ? undefined : place === 0 ? value!.firstPart : value!.child(place);
  return type && /^[\w$]+$/.test(type.text) ? type.text : undefined;
}

function isClass(scope: SyntaxNode): boolean {
  return scope.tree.language.binding.scopes[scope.kind]?.is === "class";
}

/** The scope that a name stands in front of. */
function bodyNamed(name: SyntaxNode): SyntaxNode | undefined {
  const { scopes } = name.tree.language.binding;
  const holder = name.parent;
  const body = holder?.child("body");
  const is = (node: SyntaxNode | undefined): string => scopes[node?.kind ?? ""]?.is ?? "none";
  if (is(body) === "class") return body;
  if (is(holder) === "class" || is(holder) === "namespace") return holder;
  return is(body) === "block" ? body : is(holder) === "block" ? holder : undefined;
}

/** Do names of this scope belong to a single run of a function? */
function isLocalScope(scope: SyntaxNode): boolean {
  const is = scope.tree.language.binding.scopes[scope.kind]?.is ?? "file";
  return is === "function" || (is === "block" && !bodyAround(scope).same(scope.tree.root));
}

/** Can names of this scope be seen elsewhere, by inheritance or through `using`? */
function isOpenScope(scope: SyntaxNode): boolean {
  const is = scope.tree.language.binding.scopes[scope.kind]?.is;
  return is === "class" || is === "namespace";
}

function isAround({ declaration }: Entry, scope: Scope): boolean {
  return declaration.scope.holds(scope.node) && !declaration.scope.same(scope.node);
}

/** The function, class or file that a scope belongs to. */
function bodyOf(scope: SyntaxNode): SyntaxNode {
  const is = scope.tree.language.binding.scopes[scope.kind]?.is ?? "file";
  return is === "block" ? bodyAround(scope) : scope;
}

function isSeen(
  { declaration, fromHere }: Entry,
  node: SyntaxNode,
  list: SyntaxNode | undefined,
  scope: Scope,
): boolean {
  if (list && declaration.as === "local" && list.parent?.same(scope.node)) return false;
  return !fromHere || node.start >= declaration.at[0]!.start;
}

function parameterListAround(node: SyntaxNode): SyntaxNode | undefined {
  const { scopes, parameterLists } = node.tree.language.binding;
  for (const above of node.ancestors()) {
    if (above.is(parameterLists)) return above;
    if (scopes[above.kind]?.is === "function") return undefined;
  }
  return undefined;
}

/** What a name means everywhere in a file. The name is written as `binding.bare` gives it. */
export const nameInFile = oncePerKey((bare: string, tree) => new NameInFile(bare, tree));

/** The uses that refer to a declaration, in the order of the file. */
export function referencesOf(declaration: Declaration): readonly Reference[] {
  return nameInFile(declaration.name, declaration.scope.tree).of(declaration);
}

/** Those of them that do more than read or declare it. */
export function changesOf(declaration: Declaration): readonly Reference[] {
  return nameInFile(declaration.name, declaration.scope.tree).changes(declaration);
}

/** The references that one name in the code makes; none when it names nothing. */
export function referencesAt(name: SyntaxNode): readonly Reference[] {
  return nameInFile(name.tree.language.binding.bare(name), name.tree).at(name);
}
