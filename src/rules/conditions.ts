import {
  declaredType,
  doesEscape,
  exitsOf,
  shortened,
  isBuiltin,
  isInstanceOf,
  isLeftAlone,
  isSeenElsewhere,
  isSideEffectFree,
  isUnchanged,
  isUsedAfter,
  returnedFromElsewhere,
  no,
  unknown,
  usesOf,
  weakest,
  yes,
  type Answer,
  type Code,
  type DeclaredType,
  type TypeFacts,
} from "../analysis/index.js";
import { compile, matchesIn, Snippet, snippetFits, type Hole } from "../pattern/index.js";
import type { SyntaxNode } from "../syntax/index.js";
import type { Narrowing } from "./around.js";
import { not as notFound } from "./around.js";
import { condition, type Condition } from "./condition.js";
import type { Match } from "./match.js";
import { declarationOfHole, foreignUses } from "./uses/foreign.js";

/** The variable that `name` stands for is not written in the code that another hole stands for. */
export function neverWritten(name: Hole, { in: where }: { in: Hole }): Condition {
  return condition(
    `\`${name.name}\` is not written in \`${where.name}\``,
    (match) => isLeftAlone(match.the(name), match.all(where)),
    {
      about: [name, where],
    },
  );
}

/** What `none` says where it finds something. */
export interface NoneOptions {
  /** The hole in whose code it looks. */
  readonly in: Hole;
  /** What must hold, for the rule's page: "nothing waits while the lock is held". */
  readonly must: string;
  /** The reason for which a place is held back: "`await` may not stand in a lock". */
  readonly because: string;
  readonly code?: Code;
}

/** Nothing in the code of a hole fits one of some patterns. Holes that the rule has filled mean the same code in them. */
export function none(
  patterns: Snippet | readonly Snippet[],
  { in: where, must, because, code = "form.fits" }: NoneOptions,
): Condition {
  const all = patterns instanceof Snippet ? [patterns] : patterns;
  return condition(
    must,
    (match) => {
      const { tree, found } = match;
      const compiled = all.flatMap((one) =>
        snippetFits(one, tree.language.id) ? compile(one, tree.language.id) : [],
      );
      for (const { id } of match.all(where)) {
        const [first] = matchesIn(compiled, tree, id, found.captures);
        if (first) return no(code, because, tree.node(first.nodes[0]!));
      }
      return yes(code, must);
    },
    { about: [where] },
  );
}

/** A name that the pattern spells out still means what the language defines. */
export function builtin(name: string): Condition {
  return condition(`\`${name}\` is the built-in one`, (match) => isBuiltin(name, match.node));
}

/** Evaluating the hole's code once more or once less makes no difference. */
export function sideEffectFree(hole: Hole): Condition {
  return condition(
    `evaluating \`${hole.name}\` has no side effect`,
    (match) => isSideEffectFree(match.the(hole)),
    {
      about: [hole],
    },
  );
}

/**
 * The collection a hole stands for keeps its length and its items while the statements of another hole run.
 * Certain only for a local variable that those statements do nothing with but read items and length.
 */
export function unchangedDuring(items: Hole, { during }: { during: Hole }): Condition {
  return condition(
    `\`${items.name}\` does not change in \`${during.name}\``,
    (match) => isUnchanged(match.the(items), match.all(during)),
    { about: [items, during] },
  );
}

/** What `name` stands for is used nowhere but in the matched code. */
export function onlyUse(name: Hole): Condition {
  return condition(
    `\`${name.name}\` is used only here`,
    (match) => {
      const to = declarationOfHole(match, name);
      const text = match.textOf(name);
      if (!to) return unknown("name.not-resolved", `what declares \`${text}\` is not known`, match.node);
      const isOutside = (node: SyntaxNode): boolean => !match.nodes.some((one) => one.holds(node));
      const { references, doubts } = usesOf(to);
      const isDeclaring = (node: SyntaxNode): boolean =>
        to.as === "parameter" && to.at.some((at) => at.same(node));
      const other = references.find(
        ({ node, does }) => does !== "declare" && !isDeclaring(node) && isOutside(node),
      );
      if (other) return no("name.other-uses", `\`${text}\` is used here too`, other.node);
      if (doubts[0]) return doubts[0];
      if (to.as === "parameter" || !isSeenElsewhere(to))
        return yes("name.other-uses", `\`${text}\` is used only here`);
      const foreign = foreignUses(match, to);
      const [use] = foreign.uses;
      if (use) return no("name.other-uses", `\`${text}\` is used in ${use.file.path}, line ${use.node.line}`);
      return (
        foreign.doubts[0] ??
        unknown("name.other-uses", `code outside of this project may use \`${text}\``, to.at[0])
      );
    },
    { about: [name] },
  );
}

/** Control may leave the code of a hole other than by its end, or stop in it. Usually wanted as `not(leavesEarly(body))`. */
export function leavesEarly(body: Hole): Condition {
  return condition(
    `\`${body.name}\` may be left early`,
    (match) => {
      const code = match.all(body);
      const [exit] = exitsOf(code);
      if (exit) return yes("flow.leaves-early", `\`${shortened(exit.text)}\` leaves before the end`, exit);
      const hidden = macroIn(code);
      return hidden
        ? unknown("flow.leaves-early", `\`${shortened(hidden.text)}\` may be a macro that leaves`, hidden)
        : no("flow.leaves-early", "nothing leaves before the end");
    },
    { about: [body] },
  );
}

/** A call that by its name is one of a macro, which may do anything. */
function macroIn(code: readonly SyntaxNode[]): SyntaxNode | undefined {
  const { reads, calls } = code[0]?.tree.language ?? {};
  if (reads?.names !== "macro") return undefined;
  return code
    .flatMap((one) => [...one.descendants()])
    .find((node) => node.is(calls!) && /^[A-Z][A-Z0-9_]+$/.test(node.firstPart?.text ?? ""));
}

/** The value that a variable has at the end of the matched code is read later. Usually wanted as `not(usedAfter(x))`. */
export function usedAfter(name: Hole): Condition {
  return condition(
    `\`${name.name}\` is used afterwards`,
    (match) => {
      const to = declarationOfHole(match, name);
      if (!to)
        return unknown(
          "name.not-resolved",
          `what declares \`${match.textOf(name)}\` is not known`,
          match.node,
        );
      return isUsedAfter(to, match.nodes.at(-1)!);
    },
    { about: [name] },
  );
}

/** The value of a variable gets out of its function: returned, stored, captured or passed on. */
export function escapes(name: Hole): Condition {
  return condition(
    `\`${name.name}\` gets out of its function`,
    (match) => {
      const to = declarationOfHole(match, name);
      return to
        ? doesEscape(to)
        : unknown("name.not-resolved", `what declares \`${match.textOf(name)}\` is not known`, match.node);
    },
    { about: [name] },
  );
}

/** What a hole stands for is an object of this class: by annotation, construction, literal or assignment. */
export function isOfType(hole: Hole, name: string, { module }: { module?: string } = {}): Condition {
  const ask = (match: Match): Answer => {
    const node = match.the(hole);
    const { files, path } = match.around;
    const wanted = module === undefined ? { name } : { name, module };
    const known = isInstanceOf(node, wanted, (call) => files && returnedFromElsewhere(call, path, files));
    if (known.is !== "unknown") return known;
    const type = askCompiler(match, node);
    if (!type || type.isAny) return known;
    const isIt = type.names.some(
      (one) => one.name === name && (module === undefined || one.module === module),
    );
    return (isIt ? yes : no)("type.is", `the compiler says that \`${node.text}\` is \`${type.text}\``, node);
  };
  return condition(`\`${hole.name}\` is a \`${name}\``, ask, { unknownIs: "possible", about: [hole] });
}

/** What the project's own compiler says of an expression; undefined where there is none. */
export function askCompiler({ around, tree }: Match, node: SyntaxNode): TypeFacts | undefined {
  return around.types?.typeAt({ path: around.path, text: tree.text }, node.start, node.end);
}

/**
 * What values an expression can have: by the annotations of the file, else by the project's compiler; undefined where
 * neither says, or where the compiler is told not to keep null and undefined apart.
 */
export function valuesOf(match: Match, node: SyntaxNode): DeclaredType | undefined {
  const strict =
    match.around.types?.strictNulls(match.around.path) ??
    unknown(
      "type.strict-null",
      "nothing says whether null and undefined are kept apart (`strictNullChecks`)",
    );
  const declared = declaredType(node);
  const type = declared ? undefined : askCompiler(match, node);
  if (type && (type.isAny || (strict.is === "yes" && !type.knowsMissing))) return undefined;
  const found = declared ?? (type && { how: "inferred" as const, ...type, at: node });
  if (!found) return undefined;
  const { how, text, falsy, canBeNull, canBeUndefined, at } = found;
  const by = strict.evidence.says;
  if (strict.is === "yes") return { how, text, falsy, canBeNull, canBeUndefined, at, by };
  // Where everything may be null, a type says nothing of it.
  const isOff = strict.is === "no";
  const missing = isOff ? { canBeNull: true, canBeUndefined: true } : { canBeNull, canBeUndefined };
  return { how, text, falsy, ...missing, at, by, ...(isOff ? {} : { unsure: by }) };
}

/** A yes that rests on what values a type has, with the compiler options behind it; unknown where these are not known. */
export function byType(code: Code, type: DeclaredType, says: string): Answer {
  if (type.unsure !== undefined) return unknown("type.strict-null", type.unsure, type.at);
  return yes(code, type.by === undefined ? says : `${says} (${type.by})`, type.at);
}

/** All of several conditions; the weakest answer counts. */
export function all(...conditions: readonly [Condition, ...Condition[]]): Condition {
  const [first, ...rest] = conditions;
  return {
    ...condition(conditions.map((c) => c.must).join(", and "), (match) =>
      weakest([first.ask(match), ...rest.map((c) => c.ask(match))]),
    ),
    unknownIs: lowest(conditions),
    about: conditions.flatMap(({ about = [] }) => about),
  };
}

/** One of several conditions at least; the strongest answer counts. */
export function any(...conditions: readonly [Condition, ...Condition[]]): Condition {
  const rank = { yes: 0, unknown: 1, no: 2 };
  return {
    ...condition(conditions.map((c) => c.must).join(", or "), (match) => {
      const answers = conditions.map((c) => c.ask(match));
      return answers.reduce((best, answer) => (rank[answer.is] < rank[best.is] ? answer : best));
    }),
    unknownIs: lowest(conditions),
    about: conditions.flatMap(({ about = [] }) => about),
  };
}

function lowest(conditions: readonly Condition[]): Condition["unknownIs"] {
  return conditions.some(({ unknownIs }) => unknownIs === "possible") ? "possible" : "likely";
}

/**
 * The opposite of a condition, or of a narrowing. Unknown stays unknown. The holes of a narrowing's pattern stand for
 * nothing afterwards.
 */
export function not(condition: Condition): Condition;
export function not(narrowing: Narrowing): Narrowing;
export function not(what: Condition | Narrowing): Condition | Narrowing {
  if (typeof what === "function") return notFound(what);
  const opposite = { yes: "no", no: "yes", unknown: "unknown" } as const;
  const ask = (match: Match): Answer => {
    const { is, evidence } = what.ask(match);
    return { is: opposite[is], evidence };
  };
  return condition(`not: ${what.must}`, ask, {
    unknownIs: what.unknownIs,
    ...(what.about ? { about: what.about } : {}),
  });
}
