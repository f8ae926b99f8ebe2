import { choice, condition, holes, java, need, present, rule, trialsIn } from "../../../core.js";
import { readsOnce } from "./null-safe-equals.js";

const Objects = need("java.util", "Objects");
const { value } = holes({ value: "expression" });

const { rewrites, ignores, holds } = trialsIn("java");
const within = (code: string): string =>
  `class A {\n    String a;\n    int f(A o) {\n        ${code}\n    }\n}\n`;
const imported = (code: string): string => `import java.util.Objects;\n\n${within(code)}`;

export const nullSafeHash = rule({
  id: "java/null-safe-hash",
  kind: "idiom",
  title: "Use Objects.hashCode for the hash of what may be null",
  why: "The test for null says what the method of the library does.",
  target: "7",
  was: choice(present(value), java.expression`${value}.hashCode()`, java.expression`0`),
  given: [condition("reading it once makes no difference", (match) => readsOnce(match.the(value)))],
  becomes: java.expression`${Objects}.hashCode(${value})`,
  trials: [
    rewrites(within("return a != null ? a.hashCode() : 0;"), imported("return Objects.hashCode(a);")),
    rewrites(
      within("return 31 * 7 + (a == null ? 0 : a.hashCode());"),
      imported("return 31 * 7 + Objects.hashCode(a);"),
    ),
    rewrites(
      within(
        "int h = 0;\n        if (a != null) {\n            h = a.hashCode();\n        }\n        return h;",
      ),
      imported("int h = Objects.hashCode(a);\n        return h;"),
    ),
    rewrites(
      "class A {\n    int f(A o) {\n        return o.getA() == null ? 0 : o.getA().hashCode();\n    }\n}\n",
      "import java.util.Objects;\n\nclass A {\n    int f(A o) {\n        return Objects.hashCode(o.getA());\n    }\n}\n",
      "likely",
    ),
    holds(
      "class A {\n    int f(A o) {\n        return o.next() == null ? 0 : o.next().hashCode();\n    }\n}\n",
      "calls something",
    ),
    ignores(within("return a != null ? a.hashCode() : 1;")),
    ignores(within("return a == null ? a.hashCode() : 0;")),
    ignores(within("return o != null ? a.hashCode() : 0;")),
  ],
});
