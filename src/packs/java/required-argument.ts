import {
  condition,
  consistsOf,
  holes,
  java,
  mayRunAnyway,
  missing,
  need,
  no,
  onlyIf,
  rule,
  shortened,
  trialsIn,
  yes,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { isLibraryName } from "./types.js";

const { value, message, body } = holes({ value: "expression", message: "expression", body: "statements" });
const Objects = need("java.util", "Objects");

/** The message is worked out every time now. */
function messageIsPlain(match: Match): Answer {
  if (!match.has(message)) return yes("effect.could-fail", "there is no message");
  const node = match.the(message);
  if (node.is("string_literal")) return yes("effect.could-fail", "the message is a literal", node);
  const free = mayRunAnyway(node);
  return free.is === "no"
    ? no("effect.could-fail", `\`${shortened(node.text)}\` would be worked out every time`, node)
    : free;
}

const { rewrites, ignores, holds } = trialsIn("java");
const inMethod = (code: string): string => `class A {\n    void f(Hive hive) {\n        ${code}\n    }\n}\n`;
const imported = (code: string): string => `import java.util.Objects;\n\n${inMethod(code)}`;

export const requiredArgument = rule({
  id: "java/required-argument",
  kind: "idiom",
  title: "Use Objects.requireNonNull for a required value",
  why: "Three lines of test and throw drown the line that says what a method needs.",
  target: "7",
  was: onlyIf(missing(value), body),
  where: [
    consistsOf(body, [
      java`throw new NullPointerException(${message});`,
      java`throw new NullPointerException();`,
    ]),
  ],
  given: [
    condition("the exception is the one of the language", (match) =>
      isLibraryName("NullPointerException", "java.lang", match),
    ),
    condition("working out the message every time costs nothing and does nothing", messageIsPlain),
  ],
  becomes: (match) =>
    match.has(message)
      ? java`${Objects}.requireNonNull(${value}, ${message});`
      : java`${Objects}.requireNonNull(${value});`,
  trials: [
    rewrites(
      inMethod('if (hive == null) {\n            throw new NullPointerException("hive");\n        }'),
      imported('Objects.requireNonNull(hive, "hive");'),
    ),
    rewrites(
      inMethod("if (null == hive) throw new NullPointerException();"),
      imported("Objects.requireNonNull(hive);"),
    ),
    rewrites(
      imported("if (Objects.isNull(hive)) throw new NullPointerException();"),
      imported("Objects.requireNonNull(hive);"),
    ),
    rewrites(
      inMethod('String s = "a";\n        if (find(1) == null) throw new NullPointerException("no " + s);'),
      imported('String s = "a";\n        Objects.requireNonNull(find(1), "no " + s);'),
    ),
    // Any object may have a toString() that does something.
    rewrites(
      inMethod('if (find(1) == null) throw new NullPointerException("no " + hive);'),
      imported('Objects.requireNonNull(find(1), "no " + hive);'),
      "likely",
    ),
    rewrites(
      inMethod(
        'if (this.hive == null) { // never\n            throw new NullPointerException("h");\n        }',
      ),
      imported('// never\n        Objects.requireNonNull(this.hive, "h");'),
    ),
    holds(inMethod("if (hive == null) throw new NullPointerException(name());"), "every time"),
    // Another exception is another contract.
    ignores(inMethod('if (hive == null) throw new IllegalArgumentException("hive");')),
    ignores(inMethod('if (hive != null) throw new NullPointerException("hive");')),
    ignores(inMethod('if (hive == null) { log(); throw new NullPointerException("hive"); }')),
    ignores(inMethod('if (hive == null) throw new NullPointerException("hive"); else log();')),
    trialsIn("java", "6").ignores(inMethod("if (hive == null) throw new NullPointerException();")),
  ],
});
