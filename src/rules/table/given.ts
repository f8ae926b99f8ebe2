import { classesDerivedFrom, no, placeOf, referencesAt, unknown, yes } from "../../analysis/index.js";
import type { Hole, Snippet } from "../../pattern/index.js";
import { inside, type Narrowing } from "../around.js";
import { condition, type Condition } from "../condition.js";
import { isOfType, not } from "../conditions.js";
import { loneName, type Names } from "./code-text.js";
import { evaluatedAlike } from "./order.js";
import type { ChangeRow } from "./row.js";

/** Where the new code has the old one in it, code that is in new code already is no old code. */
export function unlessWrapped({ old, new: written }: ChangeRow, now: Snippet | undefined): Narrowing[] {
  return now !== undefined && written !== undefined && written !== old && written.includes(old)
    ? [not(inside(now))]
    : [];
}

/** A member that is read by itself is no method that is called. */
export function isWhole(old: Snippet, now: Snippet | undefined): Narrowing {
  const isRead = /[\p{L}\p{N}_]\s*$/u.test(old.texts.at(-1) ?? "");
  const staysRead = now !== undefined && /[\p{L}\p{N}_]\s*$/u.test(now.texts.at(-1) ?? "");
  return ({ node }) => {
    if (!isRead || staysRead) return true;
    const { parent } = node;
    return !(parent?.is(node.tree.language.calls) && parent.firstPart?.same(node));
  };
}

/**
 * What must be known for a row to mean what it says in a place. `product` is what the code is about, where nothing but its names
 * may say so.
 */
export function givenFor(
  old: Snippet,
  now: Snippet | undefined,
  { holes, needs }: Names,
  product: string | undefined,
): Condition[] {
  const given: Condition[] = [];
  for (const { hole, type } of holes.values()) {
    if (!type) continue;
    given.push(isOfType(hole, type.name, type.module === undefined ? {} : { module: type.module }));
    const member = memberReadOf(hole, old);
    if (member !== undefined) given.push(noOwnVersion(hole, type.name, member));
  }
  if (product !== undefined && given.length === 0 && needs.size === 0)
    given.push(
      condition(
        `the code is about ${product}`,
        ({ node }) =>
          unknown(
            "name.not-resolved",
            `nothing but its name says that \`${node.text}\` is about ${product}`,
            node,
          ),
        { unknownIs: "possible" },
      ),
    );
  const order = now && evaluatedAlike(old, now);
  if (order) given.push(order);
  if (/[\p{L}\p{N}_]\s*$/u.test(old.texts.at(-1) ?? "") && !loneName(old)) given.push(notWritten);
  return given;
}

/** The member that the old code reads of a hole: `weigh` in `hive.weigh(kg)`. */
function memberReadOf(hole: Hole, { texts, parts }: Snippet): string | undefined {
  const behind = texts[parts.indexOf(hole) + 1] ?? "";
  return /^\s*(?:\??\.|->|\?->|::)\s*([\p{L}_][\p{L}\p{N}_]*)/u.exec(behind)?.[1];
}

/** No class of the project is derived from the product's and has a member of this name, which would not change with it. */
function noOwnVersion(hole: Hole, type: string, member: string): Condition {
  const must = `no class of the project has a \`${member}\` of its own in place of that of \`${type}\``;
  return condition(must, (match) => {
    const node = match.the(hole);
    const own = classesDerivedFrom(node.tree, [type]).classes.find(({ members }) =>
      members.some(({ name }) => name === member),
    );
    if (!own) return yes("type.stand-in", must);
    const shown = own.name === undefined ? "a class without a name" : `\`${own.name}\``;
    return no(
      "type.stand-in",
      `${shown} (${placeOf(own)}) is derived from \`${type}\` and has a \`${member}\` of its own`,
      node,
    );
  });
}

const notWritten = condition("it is read only", ({ node }) => {
  const last = [...node.descendants()].findLast(({ isLeaf, named }) => isLeaf && named);
  const does = last && referencesAt(last)[0]?.does;
  return does === "write" || does === "update"
    ? no("flow.written", `\`${node.text}\` is given a value here`, node)
    : yes("flow.written", `\`${node.text}\` is only read here`);
});
