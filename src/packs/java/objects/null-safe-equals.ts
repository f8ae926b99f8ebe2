import {
  condition,
  copy,
  equalOrMissing,
  holes,
  indentUnit,
  isSideEffectFree,
  need,
  no,
  reindent,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  weakest,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isLibraryName } from "../types.js";

const Objects = need("java.util", "Objects");
const { left, right } = holes({ left: "expression", right: "expression" });

/** A getter: a call without arguments whose name says that it only reads. */
const isGetter = (node: SyntaxNode): boolean =>
  node.is("method_invocation") &&
  node.child("arguments")?.parts.length === 0 &&
  /^(?:get|is|has)[A-Z]/.test(node.child("name")?.text ?? "");

/** What was read several times is read once. */
export function readsOnce(node: SyntaxNode): Answer {
  const free = isSideEffectFree(node);
  if (free.is !== "no" || !isGetter(node)) return free;
  return unknown(
    "effect.evaluated",
    `\`${shortened(node.text)}\` is called once instead of several times`,
    node,
  );
}

/** Types of `java.lang` that values have; all of them are equal to themselves, and have one `equals`. */
const LANG = (
  "Object String CharSequence Number Integer Long Short Byte Character Boolean Double Float Class Enum Throwable " +
  "Exception"
).split(" ");

/** Is everything equal to itself, and is there no other method of the name? */
function isOrdinary(node: SyntaxNode): Answer {
  const type = typeOf(node);
  const doubt = unknown(
    "type.operator",
    `\`${shortened(node.text)}\` could be of a class with an \`equals\` of its own kind`,
    node,
  );
  const module = type?.module ?? "java.lang";
  if (!type || !/^java\./.test(module) || (module === "java.lang" && !LANG.includes(type.name))) return doubt;
  return isLibraryName(type.name, module, node).is === "yes" ? yes("type.is", type.why, type.at) : doubt;
}

/** The comparison, or the statement that leaves by it. */
function compared(match: Match): Segment[] {
  const { tree } = match;
  const { isEqual, leaves } = match.equalOrMissing;
  const [one, other] = [match.the(left), match.the(right)];
  const call = [
    text(`${isEqual ? "" : "!"}${match.nameOf(Objects)}.equals(`),
    copy(one.start, one.end),
    text(", "),
    copy(other.start, other.end),
    text(")"),
  ];
  if (!leaves) return call;
  const block = leaves.parent?.is("block") ? leaves.parent : leaves;
  const base = tree.indentAt(match.found.start);
  const own = tree.indentAt(block.start);
  const isOnLine = !block.same(leaves) || tree.lineAt(leaves.start) === tree.lineAt(match.node.start);
  const lead = isOnLine ? " " : `\n${base}${indentUnit(tree, base)}`;
  return [
    text("if ("),
    ...call,
    text(`)${lead}`),
    copy(block.start, block.end, reindent(tree, block.start, block.end, own, base)),
  ];
}

const { rewrites, ignores, holds } = trialsIn("java");
const within = (code: string): string =>
  `class A {\n    String a;\n    String b;\n    boolean f(A o) {\n        ${code}\n    }\n}\n`;
const imported = (code: string): string => `import java.util.Objects;\n\n${within(code)}`;

export const nullSafeEquals = rule({
  id: "java/null-safe-equals",
  kind: "idiom",
  title: "Use Objects.equals to compare what may be null",
  why: "The tests for null are longer than the comparison, and one of them is easily turned round.",
  target: "7",
  was: equalOrMissing(left, right),
  given: [
    condition("reading both sides once makes no difference", (match) =>
      weakest([readsOnce(match.the(left)), readsOnce(match.the(right))]),
    ),
    condition("`equals` is the ordinary one", (match) => isOrdinary(match.the(left))),
    condition("nothing is assigned on the way", (match) => {
      const assigned = [...match.node.descendants()].find((node) =>
        node.is(["assignment_expression", "update_expression"]),
      );
      return assigned
        ? no("effect.side-effect", `\`${shortened(assigned.text)}\` changes something`, assigned)
        : yes("effect.side-effect", "nothing is changed on the way");
    }),
  ],
  becomes: compared,
  trials: [
    rewrites(
      within("return a == null ? o.a == null : a.equals(o.a);"),
      imported("return Objects.equals(a, o.a);"),
    ),
    rewrites(within("return a != null ? a.equals(b) : b == null;"), imported("return Objects.equals(a, b);")),
    rewrites(
      within("return a == b || (a != null && a.equals(b));"),
      imported("return Objects.equals(a, b);"),
    ),
    rewrites(
      within("return (a == null && b == null) || (a != null && a.equals(b));"),
      imported("return Objects.equals(a, b);"),
    ),
    rewrites(
      within("return a != b && (a == null || !a.equals(b));"),
      imported("return !Objects.equals(a, b);"),
    ),
    rewrites(
      within("if (a != null ? !a.equals(o.a) : o.a != null) return false;\n        return true;"),
      imported("if (!Objects.equals(a, o.a)) return false;\n        return true;"),
    ),
    rewrites(
      within(
        "if (a == null) {\n            if (o.a != null)\n                return false;\n        } else if (!a.equals(o.a))\n            return false;\n        return true;",
      ),
      imported("if (!Objects.equals(a, o.a))\n            return false;\n        return true;"),
    ),
    rewrites(
      within(
        "if (null == a) {\n            if (o.a != null) {\n                return false;\n            }\n        } else if (!a.equals(o.a)) {\n            return false;\n        }\n        return true;",
      ),
      imported("if (!Objects.equals(a, o.a)) {\n            return false;\n        }\n        return true;"),
    ),
    rewrites(
      within("return (a == null ? b == null : a.equals(b)) && f(o);"),
      imported("return Objects.equals(a, b) && f(o);"),
    ),
    rewrites(
      "import org.shop.Money;\n\nclass A {\n\tMoney m;\n\tboolean f(A o) {\n\t\tif (m == null) {\n\t\t\tif (o.m != null)\n\t\t\t\treturn false;\n\t\t} else if (!m.equals(o.m))\n\t\t\treturn false;\n\t\treturn true;\n\t}\n}\n",
      "import java.util.Objects;\nimport org.shop.Money;\n\nclass A {\n\tMoney m;\n\tboolean f(A o) {\n\t\tif (!Objects.equals(m, o.m))\n\t\t\treturn false;\n\t\treturn true;\n\t}\n}\n",
      "likely",
    ),
    rewrites(
      "class A<T extends B> {\n    T a;\n    boolean f(A<T> o) {\n        return a == null ? o.a == null : a.equals(o.a);\n    }\n}\n",
      "import java.util.Objects;\n\nclass A<T extends B> {\n    T a;\n    boolean f(A<T> o) {\n        return Objects.equals(a, o.a);\n    }\n}\n",
      "likely",
    ),
    // A class may have another method of the name, and a thing may not be equal to itself.
    rewrites(
      "class A {\n    B a;\n    boolean f(A o) {\n        return a == null ? o.a == null : a.equals(o.a);\n    }\n}\nclass B {\n    boolean equals(B b) {\n        return false;\n    }\n}\n",
      "import java.util.Objects;\n\nclass A {\n    B a;\n    boolean f(A o) {\n        return Objects.equals(a, o.a);\n    }\n}\nclass B {\n    boolean equals(B b) {\n        return false;\n    }\n}\n",
      "likely",
    ),
    rewrites(
      "class A {\n    boolean f(A o) {\n        return getA() == null ? o.getA() == null : getA().equals(o.getA());\n    }\n}\n",
      "import java.util.Objects;\n\nclass A {\n    boolean f(A o) {\n        return Objects.equals(getA(), o.getA());\n    }\n}\n",
      "likely",
    ),
    holds(
      "class A {\n    boolean f(A o) {\n        return next() == null ? o.a == null : next().equals(o.a);\n    }\n}\n",
      "calls something",
    ),
    // Another class has the name.
    rewrites(
      "class Objects {\n    String a;\n    boolean f(Objects o) {\n        return a == null ? o.a == null : a.equals(o.a);\n    }\n}\n",
      "class Objects {\n    String a;\n    boolean f(Objects o) {\n        return java.util.Objects.equals(a, o.a);\n    }\n}\n",
    ),
    // Two that are missing are not equal here, or what is missing is compared.
    ignores(within("return a != null && a.equals(b);")),
    ignores(within("return a == null ? b != null : a.equals(b);")),
    ignores(within("return a == null || a.equals(b);")),
    ignores(within("return a == null ? b == null : b.equals(a);")),
    ignores(within("return b == null ? a == null : a.equals(b);")),
    ignores(within("return a == null ? true : a.equals(b);")),
    ignores(
      within(
        "if (a == null) {\n            if (o.a != null) return false;\n        } else if (!a.equals(o.a)) return true;\n        return true;",
      ),
    ),
    ignores(
      within(
        "if (a == null) {\n            if (o.a != null) return false;\n            f(o);\n        } else if (!a.equals(o.a)) return false;\n        return true;",
      ),
    ),
  ],
});
