import {
  choice,
  condition,
  holes,
  java,
  need,
  present,
  rule,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match } from "../../../core.js";
import { cheapDefault } from "../../family/conditions.js";
import { readsOnce } from "./null-safe-equals.js";

const Objects = need("java.util", "Objects");
const { value, fallback } = holes({ value: "expression", fallback: "expression" });

/** The method of the library takes a text for its default, and gives one. */
function isText(match: Match): Answer {
  const node = match.the(fallback);
  const shown = shortened(node.text);
  if (node.is(["string_literal", "null_literal"]))
    return yes("type.is", `\`${shown}\` is a text or null`, node);
  const type = typeOf(node);
  return type?.name === "String"
    ? yes("type.is", type.why, type.at)
    : unknown("type.is", `\`${shown}\` must be a text`, node);
}

const { rewrites, ignores, holds } = trialsIn("java");
const within = (code: string): string =>
  `class A {\n    Object a;\n    String f(Hive o, String d) {\n        ${code}\n    }\n}\n`;
const imported = (code: string): string => `import java.util.Objects;\n\n${within(code)}`;

export const nullSafeText = rule({
  id: "java/null-safe-text",
  kind: "idiom",
  title: "Use Objects.toString for the text of what may be null",
  why: "The test for null says what the method of the library does.",
  target: "7",
  was: choice(present(value), java.expression`${value}.toString()`, fallback),
  given: [
    condition("reading it once makes no difference", (match) => readsOnce(match.the(value))),
    cheapDefault(fallback),
    condition("the default is a text", isText, { unknownIs: "possible" }),
  ],
  becomes: java.expression`${Objects}.toString(${value}, ${fallback})`,
  trials: [
    rewrites(
      within('return a == null ? "none" : a.toString();'),
      imported('return Objects.toString(a, "none");'),
    ),
    rewrites(
      within("return a != null ? a.toString() : null;"),
      imported("return Objects.toString(a, null);"),
    ),
    rewrites(within("return a != null ? a.toString() : d;"), imported("return Objects.toString(a, d);")),
    rewrites(
      within(
        'String s = "";\n        if (a != null) {\n            s = a.toString();\n        }\n        return s;',
      ),
      imported('String s = Objects.toString(a, "");\n        return s;'),
    ),
    rewrites(
      within("return a != null ? a.toString() : o.label;"),
      imported("return Objects.toString(a, o.label);"),
      "possible",
    ),
    // The default would be worked out in any case.
    holds(within("return a != null ? a.toString() : o.ask();"), "calls something"),
    holds(within('return o.next() != null ? o.next().toString() : "";'), "calls something"),
    ignores(within('return a != null ? a.toString(2) : "";')),
    ignores(within('return a == null ? a.toString() : "";')),
    ignores(within('return o != null ? a.toString() : "";')),
  ],
});
