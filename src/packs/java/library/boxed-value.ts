import {
  condition,
  copy,
  holes,
  no,
  ofKind,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
} from "../../../core.js";
import { unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { withParentheses } from "../../family/parentheses.js";
import { isLibraryName } from "../types.js";

const { made } = holes({ made: { kind: "expression", node: "object_creation_expression" } });

const BOXES = /^(?:java\.lang\.)?(Boolean|Byte|Character|Short|Integer|Long|Float|Double)$/;

const boxOf = (node: SyntaxNode): string | undefined => BOXES.exec(node.child("type")?.text ?? "")?.[1];

/** Methods of a boxed value that only look at the number in it. */
const LOOKS = /^(?:\w+Value|compareTo|equals|hashCode|toString|isNaN|isInfinite)$/;

/** `new` makes an object that is none other; `valueOf` may give one that others have. */
function isOnlyItsValue(match: Match): Answer {
  const code = "value.result";
  const at = withParentheses(match.the(made));
  const { parent } = at;
  if (parent?.is("method_invocation") && parent.child("object")?.same(at))
    if (LOOKS.test(parent.child("name")!.text)) return yes(code, "only its value is asked for", parent);
  const target = parent?.is("variable_declarator") ? parent.parent?.child("type")?.text : undefined;
  if (target !== undefined && /^(?:int|long|short|byte|char|float|double|boolean)$/.test(target))
    return yes(code, `it becomes \`${target}\` at once`, parent);
  const isPart = parent?.is("binary_expression") === true;
  const operator = parent?.child("operator")?.text ?? "";
  if (isPart && !/^[=!]=$/.test(operator)) return yes(code, "only its value is counted with", parent);
  if (isPart)
    return no(
      code,
      `\`${operator}\` could ask whether it is the very same object, which no new one is`,
      parent,
    );
  if (parent?.is("synchronized_statement"))
    return no(code, "it is locked, and another object with its value may be locked as well", parent);
  return unknown(code, "something could ask whether it is the very same object, which no new one was", at);
}

/** A `float` is made of a `double` too, which `valueOf` does not take. */
function isTaken(match: Match): Answer {
  const node = match.the(made);
  const [value] = node.child("arguments")!.parts;
  if (boxOf(node) !== "Float") return yes("type.same", "`valueOf` takes what the constructor takes");
  const isSmall = value!.is("decimal_floating_point_literal") && /f$/i.test(value!.text);
  const type = isSmall ? "float" : typeOf(value!)?.name;
  if (type !== undefined && /^(?:String|float|Float|int|long|short|byte|char)$/.test(type))
    return yes("type.same", `\`${shortened(value!.text)}\` is \`${type}\``, value);
  return no(
    "type.same",
    `\`${shortened(value!.text)}\` could be a \`double\`, which \`valueOf\` does not take`,
    value,
  );
}

const { rewrites, ignores, holds } = trialsIn("java", "9");
const inMethod = (code: string, imports = ""): string =>
  `${imports}class A {\n    void f(int n, String s, double d, List<Object> all) {\n        ${code}\n    }\n}\n`;

export const boxedValue = rule({
  id: "java/boxed-value",
  kind: "deprecated",
  title: "Get a boxed value by valueOf",
  why: "The constructors are to be removed, and each of them makes an object of its own for the same value.",
  target: "5",
  was: ofKind(made, {
    when: (node) =>
      boxOf(node) !== undefined &&
      node.child("arguments")?.parts.length === 1 &&
      !node.parts.some((part) => part.is("class_body")),
  }),
  mentions: ["new"],
  given: [
    condition("the class is the one of the library", (match) =>
      isLibraryName(boxOf(match.the(made))!, "java.lang", match),
    ),
    condition("`valueOf` takes the same", isTaken),
    condition("nobody asks for the very same object", isOnlyItsValue),
  ],
  becomes: (match) => {
    const node = match.the(made);
    const type = node.child("type")!;
    const list = node.child("arguments")!;
    return [copy(type.start, type.end), text(".valueOf"), copy(list.start, list.end)];
  },
  trials: [
    rewrites(inMethod("int a = new Integer(s);"), inMethod("int a = Integer.valueOf(s);")),
    rewrites(inMethod("g(new Long(n).hashCode());"), inMethod("g(Long.valueOf(n).hashCode());")),
    rewrites(inMethod("g(1 + new Integer(s) * 2);"), inMethod("g(1 + Integer.valueOf(s) * 2);")),
    rewrites(
      inMethod("boolean b = new java.lang.Boolean(s);"),
      inMethod("boolean b = java.lang.Boolean.valueOf(s);"),
    ),
    // A list can be asked for the very same object.
    rewrites(inMethod("all.add(new Integer(n));"), inMethod("all.add(Integer.valueOf(n));"), "likely"),
    rewrites(inMethod("Double x = new Double(d);"), inMethod("Double x = Double.valueOf(d);"), "likely"),
    rewrites(inMethod("float x = new Float(1.5f);"), inMethod("float x = Float.valueOf(1.5f);")),
    rewrites(inMethod("float x = new Float(6);"), inMethod("float x = Float.valueOf(6);")),
    holds(inMethod("double half = d / 2; g(new Float(half));"), "could be a `double`"),
    holds(inMethod("g(new Float(d));"), "could be a `double`"),
    holds(inMethod("g(x == new Integer(n));"), "the very same object"),
    holds(inMethod("synchronized (new Integer(n)) { g(); }"), "it is locked"),
    holds(inMethod("g(new Integer(n));", "import hive.Integer;\n"), "is imported from"),
    ignores(inMethod("g(new Integer[n]);")),
    ignores(inMethod("g(new String(s));")),
    ignores(inMethod("g(Integer.valueOf(n));")),
  ],
});
