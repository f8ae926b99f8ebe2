import { functionAround, no, presenceOf, shortened, unknown, waysOutWithout, yes } from "../../../core.js";
import type { Answer, Coverage, Match, SyntaxNode } from "../../../core.js";
import { isInert } from "./release.js";

/** The class that a member's declaration stands in. */
export function classOf(field: SyntaxNode): SyntaxNode | undefined {
  return field.closest(["class_specifier", "struct_specifier"]);
}

/** Is a function a destructor? */
export function isDestructor(body: SyntaxNode | undefined): boolean {
  const declarator = body?.child("declarator");
  return declarator !== undefined && /(^|::)~\w+\s*\($/.test(declarator.text.replace(/\([\s\S]*$/, "("));
}

/** How something is given back by hand. */
export interface Giving {
  /** The statement by which a use gives it back; undefined for other uses. */
  statement(use: SyntaxNode): SyntaxNode | undefined;
  /** Is a statement one that gives something back in this way? */
  isOne(statement: string): boolean;
}

/** The statement of a `delete` that a use of the member stands in; undefined for other uses. */
function deleteAround(use: SyntaxNode): SyntaxNode | undefined {
  const value = use.parent?.is("field_expression") ? use.parent : use;
  const { parent } = value;
  if (!parent?.is("delete_expression") || parent.has("[")) return undefined;
  return parent.parent?.is("expression_statement") ? parent.parent : undefined;
}

/** `delete member;` */
export const DELETED: Giving = { statement: deleteAround, isOne: (code) => /^delete\b/.test(code) };

/** `member->Release();`, `closeScale(member);`: code with `handle` in the place of the member. */
export function givenBackBy(release: string): Giving {
  const bare = (code: string): string =>
    code
      .replace(/\s+/g, "")
      .replace(/;$/, "")
      .replace(/this->/g, "");
  const parts = bare(release).split(/\bhandle\b/);
  return {
    statement(use) {
      const statement = use.closest(["expression_statement"]);
      return statement && bare(statement.text) === parts.join(use.text) ? statement : undefined;
    },
    isOne: (code) => bare(code).startsWith(parts[0]!) && bare(code).endsWith(parts.at(-1)!),
  };
}

/** The branch that is taken where the member is there, of an `if` that asks for nothing else. */
function branchWhereThere(statement: SyntaxNode, name: string): SyntaxNode | undefined {
  const condition = statement.is("if_statement") ? statement.child("condition") : undefined;
  const test = condition && presenceOf(condition);
  const isAsked = test?.isThere === true && test.subject.text.replace(/^this->/, "") === name;
  // Of a pointer, zero is the null.
  const isZero = new RegExp(`^\\(\\s*(this->)?${name}\\s*!=\\s*0\\s*\\)$`).test(condition?.text ?? "");
  return isAsked || isZero ? statement.child("consequence") : undefined;
}

/**
 * A statement and those around it, up to the one in the destructor's own block, looking through tests for null; undefined where
 * anything else decides whether it runs.
 */
function upToOwnBlock(statement: SyntaxNode, name: string): SyntaxNode[] | undefined {
  const found = [statement];
  for (let at = statement, above = at.parent; above; [at, above] = [above, above.parent]) {
    if (above.is("compound_statement")) {
      if (above.parent?.is("function_definition")) return found;
    } else if (branchWhereThere(above, name)?.same(at) !== true) return undefined;
    found.push(above);
  }
  return undefined;
}

/** Does code give the member back, and nothing else? */
export function onlyGivesBack(code: SyntaxNode, name: string, giving: Giving): boolean {
  if (code.is("compound_statement")) return code.parts.every((part) => onlyGivesBack(part, name, giving));
  if (code.is("if_statement")) {
    const branch = branchWhereThere(code, name);
    return branch !== undefined && !code.child("alternative") && onlyGivesBack(branch, name, giving);
  }
  const isEmptied = new RegExp(`^(this\\s*->\\s*)?${name}\\s*=\\s*(NULL|nullptr|0)\\s*;$`).test(code.text);
  return isEmptied || code.mentions(name).some((leaf) => giving.statement(leaf)?.same(code) === true);
}

/** Does the destructor of the class release the member, whatever happens? */
export function releasedByDestructor(
  name: string,
  { declaration, places }: Coverage,
  giving: Giving,
): Answer {
  const releases = places.filter(({ node }) => giving.statement(node) && isDestructor(functionAround(node)));
  if (releases.length === 0)
    return no("resource.owner", `no destructor gives \`${name}\` back, so it may belong to somebody else`);
  /** Exceptions do not leave a destructor. */
  const isAlways = (node: SyntaxNode): boolean => {
    const own = upToOwnBlock(giving.statement(node)!, name)?.at(-1);
    const ways = own && waysOutWithout(functionAround(node)!, [own], declaration);
    return ways?.every(({ by }) => by === "exception") ?? false;
  };
  const whole = releases.find(({ node }) => isAlways(node));
  return whole
    ? yes(
        "resource.owner",
        `the destructor gives \`${name}\` back`,
        whole.path === undefined ? whole.node : undefined,
      )
    : no("resource.owner", `the destructor gives \`${name}\` back only sometimes`, releases[0]!.node);
}

/** Releases that stand at the end of a block, where only others like them follow. */
const RELEASE = /^(delete(\s*\[\s*\])?\s+[\w.>-]+|[\w.>-]+\s*=\s*(NULL|nullptr|0)|[\w.>-]+\.reset\(\))\s*;$/;

/** What follows a release in the destructor, in the blocks around it too. */
function followersOf(use: SyntaxNode, name: string, giving: Giving): readonly SyntaxNode[] | undefined {
  const statement = giving.statement(use);
  const around = statement && upToOwnBlock(statement, name);
  return around?.flatMap(({ parent, end }) =>
    parent!.is("compound_statement")
      ? parent!.parts.filter((part) => part.start >= end && !part.is("comment"))
      : [],
  );
}

function isRelease({ text }: SyntaxNode, giving: Giving): boolean {
  return RELEASE.test(text.replace(/\s+/g, " ")) || giving.isOne(text);
}

/** Does the release stand at the end of a destructor, with nothing but releases behind it? */
export function isAtTheEnd(use: SyntaxNode, name: string, giving: Giving): boolean {
  if (!isDestructor(functionAround(use))) return false;
  const following = followersOf(use, name, giving);
  return following !== undefined && following.every((part) => isRelease(part, giving));
}

/** Do members go in the order in which they went? Those that are declared later go first. */
export function goesInOrder(match: Match, name: string, { places }: Coverage, giving: Giving): Answer {
  const release = places.find(({ node }) => isAtTheEnd(node, name, giving));
  if (!release) return yes("resource.order", "it is released where it was released before");
  const follower = (followersOf(release.node, name, giving) ?? []).find(
    (part) => isRelease(part, giving) && !/=\s*(NULL|nullptr|0)\s*;$/.test(part.text),
  );
  if (follower)
    return unknown(
      "resource.order",
      `\`${shortened(follower.text)}\` came after it, and may come before it now`,
    );
  const list = classOf(match.node)?.child("body");
  const later = (list?.parts ?? []).find(
    (part) =>
      part.is("field_declaration") &&
      part.start > match.node.start &&
      !isInert(part) &&
      !part.child("declarator")?.is("function_declarator"),
  );
  return later
    ? unknown(
        "resource.order",
        `\`${shortened(later.text)}\` goes before \`${name}\` now, and went after it`,
        later,
      )
    : yes("resource.order", `\`${name}\` goes as the first of the members, as before`);
}

/** A class that owns something by a unique_ptr cannot be copied any more. */
export function isNotCopied(match: Match): Answer {
  const owner = classOf(match.node);
  const name = owner?.child("name")?.text;
  if (!owner || name === undefined) return unknown("resource.owner", "the class has no name", match.node);
  const copies = new RegExp(`\\b${name}\\s*\\(\\s*(const\\s+)?${name}\\s*(const\\s*)?&`);
  const declared = owner.child("body")?.parts.find((part) => copies.test(part.text));
  if (declared) return yes("resource.owner", `\`${name}\` says itself how it is copied`, declared);
  const deleted = /(DISALLOW|NONCOPYABLE|NON_COPYABLE|NO_COPY)\w*\s*\(|noncopyable/i.exec(owner.text);
  return deleted
    ? yes("resource.owner", `\`${name}\` cannot be copied`, owner)
    : unknown(
        "resource.owner",
        `\`${name}\` cannot be copied any more; copies that were made shared what they point to`,
        owner,
      );
}

/** The destructor and the constructors must see the whole type, not only its name. */
export function isComplete(match: Match, type: string): Answer {
  const { text } = match.tree;
  const bare = type.replace(/^.*::/, "").replace(/<.*$/s, "");
  if (new RegExp(`\\b(class|struct)\\s+(\\w+\\s+)?${bare}\\b[^;(){}]*\\{`).test(text))
    return yes("type.complete", `\`${type}\` is defined here`);
  if (!new RegExp(`\\b(class|struct)\\s+${bare}\\s*;`).test(text)) {
    return new RegExp(`\\bnew\\s+${bare}\\b`).test(text)
      ? yes("type.complete", `\`${type}\` is known whole here, since one is made`)
      : unknown(
          "type.complete",
          `what this file includes may only announce \`${type}\`, which constructors need to know whole`,
        );
  }
  const owner = classOf(match.node);
  const name = owner?.child("name")?.text ?? "";
  const body = owner?.child("body")?.parts ?? [];
  const constructors = body.filter((part) =>
    new RegExp(`(^|\\s)${name}\\s*\\(`).test(part.text.split("{")[0]!),
  );
  const inline = constructors.find(
    (part) => part.is("function_definition") && part.child("body") !== undefined,
  );
  if (inline)
    return no(
      "type.complete",
      `\`${type}\` is only announced here, and a constructor needs to know it whole`,
      inline,
    );
  return constructors.length > 0
    ? yes("type.complete", `the constructors of \`${name}\` are defined where \`${type}\` is known`)
    : no(
        "type.complete",
        `\`${type}\` is only announced here, and the constructor that nobody wrote needs to know it whole`,
      );
}
