import {
  classesNamed,
  isLeftAlone,
  isTarget,
  memberNamed,
  no,
  placeOf,
  rule,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { eachItem as family, loopHoles, noKnownList } from "../../family/each-item.js";

function isList(items: SyntaxNode): Answer {
  const type = typeOf(items);
  const isKnown =
    type !== undefined &&
    classesNamed(items.tree, type.name).classes.length === 0 &&
    (/^(?:string|.*\[\])$/.test(type.name) ||
      (/^(?:List|IList|IReadOnlyList)$/.test(type.name) && /</.test(type.why)));
  if (isKnown) return yes("type.is", type.why, type.at);
  const found = type && memberNamed(items, type.name, "GetEnumerator");
  return found?.isWhole && !found.member
    ? no("type.is", `\`${type!.name}\` has no \`GetEnumerator\` (${placeOf(found.of)})`, items)
    : noKnownList(items);
}

/** An item of an array is a place, and the variable of a loop a copy: for a struct that makes a difference. */
function isTheItem(match: Match): Answer {
  const { items, lookUps } = match.loop;
  const type = typeOf(items);
  const fine = yes("value.result", "the items are only read");
  const { own, body } = match.loop;
  const written = own && isLeftAlone(own.name, body.slice(1));
  if (written && written.is !== "yes")
    return no(
      "flow.written",
      `\`${own.name.text}\` is given another value, which the variable of a loop cannot be`,
      own.name,
    );
  if (type !== undefined && !type.name.endsWith("[]")) return fine;
  const item = type?.name.slice(0, -2);
  const isPlain =
    item !== undefined &&
    /^(string|int|long|bool|char|byte|double|float|decimal|object|short|uint|ulong|ushort|sbyte)$/.test(item);
  const [declared] = item === undefined ? [] : classesNamed(match.tree, item).classes;
  if (isPlain || declared?.kind === "class_declaration" || declared?.kind === "interface_declaration")
    return fine;
  for (const read of lookUps) {
    const member = read.parent?.is("member_access_expression") ? read.parent : undefined;
    if (!member) continue;
    let at: SyntaxNode = member;
    while (
      at.parent?.is(["member_access_expression", "element_access_expression"]) &&
      at.parent.firstPart!.same(at)
    )
      at = at.parent;
    if (isTarget(at))
      return no("value.result", `\`${shortened(at.parent!.text)}\` changes the item in its place`, at);
    if (member.parent?.is("invocation_expression") && member.field === "function")
      return unknown(
        "value.result",
        `\`${shortened(member.text)}\` could change the item in its place, if it is a struct`,
        member,
      );
  }
  return fine;
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string): string =>
  `class A\n{\n    void F(List<Hive> hives, int[] ns, Box box)\n    {\n        ${code}\n    }\n}\n`;

export const eachItem = rule({
  id: "csharp/each-item",
  kind: "idiom",
  title: "Use foreach to walk a list",
  why: "Counting by hand hides what the loop is about and invites off-by-one mistakes.",
  mentions: ["Count", "Length"],
  ...family({
    ...loopHoles(),
    declared: (_match, own, name) => {
      const declaration = own?.statement.parts.find((part) => part.is("variable_declaration"));
      return `${declaration?.child("type")?.text ?? "var"} ${name}`;
    },
    header: (declared, items) => `foreach (${declared} in ${items})`,
    isList,
    isTheItem,
    looks: ["Contains", "IndexOf", "ElementAt", "First", "Last"],
  }),
  trials: [
    holds(
      "class Box { public int Length; public Hive this[int n] => null; } class A { void F(Box box) { for (int i = 0; i < box.Length; i++) { Use(box[i]); } } }",
      "has no `GetEnumerator`",
    ),
    rewrites(
      "class Box : IEnumerable { public int Length; public Hive this[int n] => null; } class A { void F(Box box) { for (int i = 0; i < box.Length; i++) { Use(box[i]); } } }",
      "class Box : IEnumerable { public int Length; public Hive this[int n] => null; } class A { void F(Box box) { foreach (var item in box) { Use(item); } } }",
      "possible",
    ),
    rewrites(
      inMethod(
        "for (int i = 0; i < hives.Count; i++)\n        {\n            var hive = hives[i];\n            int n = hive.Age + 1;\n        }",
      ),
      inMethod("foreach (var hive in hives)\n        {\n            int n = hive.Age + 1;\n        }"),
    ),
    rewrites(
      inMethod("int sum = 0;\n        for (var i = 0; i < ns.Length; ++i) sum += ns[i];"),
      inMethod("int sum = 0;\n        foreach (var item in ns) sum += item;"),
    ),
    rewrites(
      inMethod("for (int i = 0; i < box.Count; i++) Use(box[i]);"),
      inMethod("foreach (var item in box) Use(item);"),
      "possible",
    ),
    holds(
      inMethod("for (int i = 0; i < hives.Count; i++) { hives.Remove(hives[i]); }"),
      "could change what is walked",
    ),
    holds(inMethod("for (int i = 0; i < ns.Length; i++) { ns[i] = ns[i] + 1; }"), "another value"),
    holds(inMethod("for (int i = 0; i < ns.Length; i++) { Later(() => ns[i]); }"), "may run later"),
    holds(
      inMethod(
        "Size[] sizes = Find();\n        for (int i = 0; i < sizes.Length; i++) { sizes[i].Width = 1; }",
      ),
      "in its place",
    ),
    rewrites(
      inMethod("Size[] sizes = Find();\n        for (int i = 0; i < sizes.Length; i++) { sizes[i].Grow(); }"),
      inMethod("Size[] sizes = Find();\n        foreach (var size in sizes) { size.Grow(); }"),
      "likely",
    ),
    holds(inMethod("for (int i = 0; i < ns.Length; i++) { int n = ns[i]; n = n + 1; Use(n); }"), "cannot be"),
    ignores(inMethod("for (int i = 0; i < ns.Length; i++) Use(i, ns[i]);")),
    ignores(inMethod("for (int i = 1; i < ns.Length; i++) Use(ns[i]);")),
    ignores(inMethod("for (int i = 0; i < ns.Length; i += 2) Use(ns[i]);")),
  ],
});
