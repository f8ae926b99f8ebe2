import { isTarget } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { runsAtLoad } from "./at-load.js";
import { inner, unwrapped } from "./brackets.js";
import { type CodeFile, given, topStatement } from "./code-file.js";
import { isPlainName } from "./names.js";
import { NotAModule } from "./not-a-module.js";
import { isMainTest } from "./started.js";
import { usesThis } from "./uses-this.js";

/** What a file makes its exports as a whole: `module.exports = …`. */
export interface Whole {
  readonly assignment: SyntaxNode;
  readonly statement: SyntaxNode;
  readonly value: SyntaxNode;
  /** The variable that is declared with the same value: `const jar = module.exports = …`. */
  readonly declared?: SyntaxNode;
}

/** One member that is put into the exports: `exports.weigh = …`, also as one of `exports.weigh = exports.scale = …`. */
export interface Put {
  readonly name: string;
  readonly assignment: SyntaxNode;
  /** All of the members that get the value, and the assignment around them all. */
  readonly group: PutGroup;
}

/** The members that get one value. */
export interface PutGroup {
  readonly outer: SyntaxNode;
  readonly statement: SyntaxNode;
  readonly value: SyntaxNode;
  /** The variable that is declared with the same value: `const weigh = exports.weigh = …`. */
  readonly declared?: SyntaxNode;
  readonly names: readonly string[];
}

/** Where the exports, or one member of them, are read. */
export interface ReadBack {
  readonly node: SyntaxNode;
  readonly name: string | undefined;
}

/** The exports as they are used where `export` cannot say what is done with them: as an object that the file fills. */
export interface AsFilled {
  readonly mentions: readonly SyntaxNode[];
  /** Is the object itself another one in the end, at least in some case? */
  readonly isSet: boolean;
}

/** All that a file does with its exports. */
export interface Exported {
  /** The exports as an object; undefined where they cannot be one. */
  readonly object?: AsFilled;
  readonly whole: Whole | undefined;
  /** `exports = module.exports = {}`, where all that counts is what is put in there afterwards. */
  readonly emptied: SyntaxNode | undefined;
  readonly puts: readonly Put[];
  readonly reads: readonly ReadBack[];
}

/** `exports` and `module.exports` in a file, the whole of each. Throws a NotAModule for other uses of `module`. */
function mentions({ tree }: CodeFile): { node: SyntaxNode; isWhole: boolean }[] {
  const whole = given("module", tree).flatMap((name) => {
    const { parent } = name;
    if ([parent, parent?.parent].some((around) => around && isMainTest(around))) return [];
    const isObject = parent?.is("member_expression") && parent.child("object")?.same(name);
    const property = isObject ? parent?.child("property")!.text : undefined;
    if (parent && property === "exports") return [{ node: parent, isWhole: true }];
    if (property !== undefined)
      throw new NotAModule(parent, `\`module.${property}\` is not there in an ES module`);
    throw new NotAModule(name, "`module` is used as a value: the file asks what loads it");
  });
  return [...whole, ...given("exports", tree).map((node) => ({ node, isWhole: false }))];
}

/** What a file does with its exports. Throws a NotAModule where `export` cannot say it. */
export function exportedBy(file: CodeFile): Exported {
  try {
    const said = saidBy(file);
    const object = said.whole ? undefined : filledIn(file);
    return object ? { ...said, object } : said;
  } catch (error) {
    const object = error instanceof NotAModule ? filledIn(file) : undefined;
    if (!object) throw error;
    return { object, whole: undefined, emptied: undefined, puts: [], reads: [] };
  }
}

/** The exports as an object, where all that names them names the same one. Undefined where it is set in a function, and late. */
function filledIn(file: CodeFile): AsFilled | undefined {
  const found = mentions(file);
  if (found.length === 0 || file.tree.text.includes("__esModule")) return undefined;
  const isSet = ({ node }: { node: SyntaxNode }): boolean =>
    node.parent?.is("assignment_expression") === true && node.parent.child("left")!.same(node);
  const set = found.filter(isSet);
  const nodes = found.map(({ node }) => node);
  if (set.length === 0) return { mentions: nodes, isSet: false };
  // `exports` goes on to be the first object once `module.exports` is another one.
  const isOne = found.every(({ isWhole }) => isWhole) && set.every(({ node }) => runsAtLoad(node));
  return isOne ? { mentions: nodes, isSet: true } : undefined;
}

function saidBy(file: CodeFile): Exported {
  const { tree } = file;
  let whole: Whole | undefined;
  let isBoth = false;
  const groups = new Map<number, PutGroup>();
  const puts: Put[] = [];
  const reads: (ReadBack & { isWhole: boolean })[] = [];
  for (const { node, isWhole } of mentions(file).sort((a, b) => a.node.start - b.node.start)) {
    const member = memberOf(node);
    const target = member ?? node;
    const assignment = target.parent;
    if (!assignment?.is("assignment_expression") || !assignment.child("left")?.same(target)) {
      const name = member?.is("member_expression") ? member.child("property")!.text : undefined;
      if (isTarget(target) || (member && name === undefined))
        throw new NotAModule(target, "what is exported is worked out");
      reads.push({ node: target, name, isWhole });
      continue;
    }
    if (member) {
      const outer = outermost(assignment);
      let group = groups.get(outer.id);
      if (!group) groups.set(outer.id, (group = groupOf(outer)));
      puts.push({ name: member.child("property")!.text, assignment, group });
      continue;
    }
    const found = wholeOf(assignment);
    if (whole && !whole.assignment.same(found.assignment))
      throw new NotAModule(assignment, "the exports are set more than once");
    if (whole) isBoth = true;
    else whole = found;
  }
  const stale = [
    ...reads.filter(({ isWhole }) => !isWhole).map(({ node }) => node),
    ...putsBy(puts, "exports"),
  ];
  if (whole && !isBoth && stale[0])
    throw new NotAModule(stale[0], "`exports` is another object than `module.exports` here");
  const early = whole && reads.find(({ node }) => node.start < whole.assignment.start && runsAtLoad(node));
  if (early) throw new NotAModule(early.node, "the exports are read before they are set");
  const first = whole && puts.find(({ group }) => group.statement.start < whole.statement.start);
  if (first) throw new NotAModule(first.assignment, "the exports are set more than once");
  if (tree.text.includes("__esModule") && (whole || puts.length > 0))
    throw new NotAModule(whole?.assignment ?? puts[0]!.assignment, "the file is what a compiler has written");
  const isEmptied =
    whole?.value.is("object") === true &&
    whole.value.parts.length === 0 &&
    !whole.declared &&
    puts.length > 0;
  if (whole && !isEmptied) return { whole, emptied: undefined, puts, reads };
  const names = new Set<string>();
  for (const { name, assignment } of puts) {
    if (!isPlainName(name)) throw new NotAModule(assignment, `\`${name}\` cannot be the name of a variable`);
    if (names.has(name)) throw new NotAModule(assignment, `\`${name}\` is exported more than once`);
    names.add(name);
  }
  const method = puts.find(({ group }) => usesThis(group.value));
  if (method) throw new NotAModule(method.assignment, "the function uses `this`, which may be the exports");
  const object = reads.find(({ name }) => name === undefined);
  if (object) throw new NotAModule(object.node, "the exports are handed on as an object");
  const other = reads.find(({ name }) => !names.has(name!));
  if (other) throw new NotAModule(other.node, `\`${other.node.text}\` is set nowhere`);
  return { whole: undefined, emptied: whole?.statement, puts, reads };
}

const putsBy = (puts: readonly Put[], name: string): SyntaxNode[] =>
  puts.flatMap(({ assignment }) => {
    const object = assignment.child("left")!.child("object")!;
    return object.text === name ? [assignment] : [];
  });

const memberOf = (node: SyntaxNode): SyntaxNode | undefined =>
  node.parent?.is(["member_expression", "subscript_expression"]) && node.parent.child("object")?.same(node)
    ? node.parent
    : undefined;

/** The assignment around all that assign the same value. */
function outermost(assignment: SyntaxNode): SyntaxNode {
  let outer = assignment;
  for (let above = unwrapped(outer).parent; above; above = unwrapped(outer).parent) {
    if (!above.is("assignment_expression") || !above.child("right")!.same(unwrapped(outer))) break;
    outer = above;
  }
  return outer;
}

/** The targets of assignments of one value, and the value. */
function chainOf(outer: SyntaxNode): { targets: SyntaxNode[]; value: SyntaxNode } {
  const targets: SyntaxNode[] = [];
  let at = outer;
  while (inner(at).is("assignment_expression")) {
    targets.push(inner(at).child("left")!);
    at = inner(at).child("right")!;
  }
  return { targets, value: at };
}

/** The variable that gets the value of an assignment too; throws a NotAModule where the assignment is part of more than that. */
function declaredWith(outer: SyntaxNode, statement: SyntaxNode): SyntaxNode | undefined {
  const parent = unwrapped(outer).parent!;
  if (parent.same(statement) && statement.is("expression_statement")) return undefined;
  const isDeclared =
    parent.is("variable_declarator") && parent.parent!.same(statement) && parent.parent!.parts.length === 1;
  const declared = isDeclared ? parent.child("name") : undefined;
  if (!declared?.is("identifier")) throw new NotAModule(outer, "what is exported depends on what happens");
  return declared;
}

function groupOf(outer: SyntaxNode): PutGroup {
  const statement = topStatement(outer);
  const { targets, value } = chainOf(outer);
  const names = targets.map((target) => {
    const object = target.is("member_expression") ? target.child("object")!.text : "";
    if (!/^(module\.)?exports$/.test(object)) throw new NotAModule(target, "what is exported is worked out");
    return target.child("property")!.text;
  });
  const declared = declaredWith(outer, statement);
  return { outer, statement, value, names, ...(declared ? { declared } : {}) };
}

/** `module.exports = v`, also as one of `exports = module.exports = v` and `const jar = module.exports = v`. */
function wholeOf(assignment: SyntaxNode): Whole {
  const outer = outermost(assignment);
  const { targets, value } = chainOf(outer);
  const statement = topStatement(outer);
  if (!targets.some(({ text }) => text === "module.exports"))
    throw new NotAModule(assignment, "`exports` itself is set, which exports nothing");
  const other = targets.find(({ text }) => !/^(module\.)?exports$/.test(text));
  if (other) throw new NotAModule(other, "several things are set at once");
  const declared = declaredWith(outer, statement);
  return { assignment: outer, statement, value, ...(declared ? { declared } : {}) };
}
