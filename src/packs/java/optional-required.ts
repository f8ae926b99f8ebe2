import { condition, everyUseOf, holes, java, no, rule, trialsIn, use, yes } from "../../core.js";
import type { Match } from "../../core.js";
import { staysQuiet, usesOnlyFinal } from "./lambdas.js";
import { isLibraryName } from "./types.js";

const { type, maybe, made, error } = holes({
  type: "type",
  maybe: "name",
  made: "expression",
  error: "expression",
});

const { rewrites, ignores, holds } = trialsIn("java");
const inMethod = (code: string): string =>
  `import java.util.Optional;\n\nclass A {\n    String f(String key) {\n        ${code}\n    }\n}\n`;

export const optionalRequired = rule({
  id: "java/optional-required",
  kind: "idiom",
  title: "Use orElseThrow for a value without which a method cannot go on",
  why: "Every get() behind the test makes the reader check that the test is still there.",
  target: "8",
  was: [
    java`
      Optional<${type}> ${maybe} = ${made};
      if (!${maybe}.isPresent()) {
        throw ${error};
      }
    `,
    java`
      Optional<${type}> ${maybe} = ${made};
      if (${maybe}.isEmpty()) {
        throw ${error};
      }
    `,
  ],
  given: [
    condition("`Optional` is the one of the library", (match) =>
      isLibraryName("Optional", "java.util", match),
    ),
    condition("the exception does not ask for the value", (match) => {
      const asked = match.the(error).mentions(match.textOf(maybe))[0];
      return asked
        ? no("name.other-uses", `\`${asked.text}\` is asked for where it is empty`, asked)
        : yes("name.other-uses", "the exception does not ask for it");
    }),
    condition("what moves into a lambda uses only variables that never change", (match: Match) =>
      usesOnlyFinal([match.the(error)]),
    ),
    condition("what moves into a lambda throws nothing that must be declared", (match: Match) =>
      staysQuiet([match.the(error)]),
    ),
  ],
  uses: everyUseOf(maybe, [use(java`${maybe}.get()`).becomes(java.expression`${maybe}`)]),
  becomes: java`${type} ${maybe} = ${made}.orElseThrow(() -> ${error});`,
  trials: [
    rewrites(
      inMethod(
        "Optional<String> queen = find(key);\n        if (!queen.isPresent()) {\n            throw new IllegalStateException(key);\n        }\n        log(queen.get());\n        return queen.get().trim();",
      ),
      inMethod(
        "String queen = find(key).orElseThrow(() -> new IllegalStateException(key));\n        log(queen);\n        return queen.trim();",
      ).replace("import java.util.Optional;\n\n", ""),
    ),
    rewrites(
      inMethod(
        "Optional<String> queen = find(key);\n        if (queen.isEmpty()) throw new IllegalStateException();\n        mark(1, queen.get());\n        return null;",
      ),
      inMethod(
        "String queen = find(key).orElseThrow(() -> new IllegalStateException());\n        mark(1, queen);\n        return null;",
      ).replace("import java.util.Optional;\n\n", ""),
    ),
    holds(
      inMethod(
        "Optional<String> queen = find(key);\n        if (!queen.isPresent()) throw new IllegalStateException();\n        return join(queen, queen.get());",
      ),
      "which the rule does not know",
    ),
    holds(
      inMethod(
        "Optional<String> queen = find(key);\n        if (!queen.isPresent()) throw new IllegalStateException();\n        queen = find(queen.get());\n        return queen.get();",
      ),
      "which the rule does not know",
    ),
    holds(
      inMethod(
        'key = key + "a";\n        Optional<String> queen = find(key);\n        if (!queen.isPresent()) throw new IllegalStateException(key);\n        return queen.get();',
      ),
      "more than once",
    ),
    ignores(
      inMethod(
        "Optional<String> queen = find(key);\n        if (!queen.isPresent()) log(key);\n        return queen.get();",
      ),
    ),
    ignores(
      inMethod(
        "Optional<String> queen = find(key);\n        if (!other.isPresent()) throw new IllegalStateException();\n        return queen.get();",
      ),
    ),
  ],
});
