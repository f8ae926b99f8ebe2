import {
  caution,
  choice,
  condition,
  holes,
  java,
  need,
  present,
  rule,
  sideEffectFree,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Match } from "../../core.js";
import { isLibraryName } from "./types.js";

const { value } = holes({ value: "expression" });
const Optional = need("java.util", "Optional");

const EMPTY = 1;

/** Does the nearest method around say that it returns an Optional? A lambda in between returns to somebody else. */
function returnsOptional({ node }: Match): boolean {
  const around = [...node.ancestors()].find((above) => above.is(["method_declaration", "lambda_expression"]));
  return (
    around?.is("method_declaration") === true &&
    /^(java\.util\.)?Optional\b/.test(around.child("type")?.text ?? "")
  );
}

const { rewrites, ignores, holds } = trialsIn("java");
const inClass = (code: string): string => `import java.util.Optional;\n\nclass A {\n    ${code}\n}\n`;

export const optionalOfNull = rule({
  id: "java/optional-of-null",
  kind: "smell",
  title: "Use ofNullable for a value that may be null, and empty for null",
  why: "An Optional that is null itself fails at the very call that was to be safe.",
  target: "8",
  was: [
    choice(present(value), java`${Optional}.of(${value})`, java`${Optional}.empty()`),
    java`return null;`,
  ],
  where: [(match) => match.alternative !== EMPTY || returnsOptional(match)],
  given: [
    condition("evaluating the value once makes no difference", (match) =>
      match.has(value) ? sideEffectFree(value).ask(match) : yes("value.result", "no value is there"),
    ),
    condition(
      "`Optional` is the one of the library",
      (match) => isLibraryName("Optional", "java.util", match),
      { when: (match) => match.alternative === EMPTY },
    ),
    condition("nobody asks whether the Optional itself is null", (match) =>
      match.alternative === EMPTY
        ? unknown("value.result", "callers could compare the result with null", match.node)
        : yes("value.result", "the result is never null"),
    ),
  ],
  cautions: (match) =>
    match.alternative === EMPTY
      ? [caution("value.result", "a caller that asks whether the result `== null` is told no from now on")]
      : [],
  becomes: (match) =>
    match.alternative === EMPTY ? java`return ${Optional}.empty();` : java`${Optional}.ofNullable(${value})`,
  trials: [
    rewrites(
      inClass("Optional<Hive> f(Hive h) { return h == null ? Optional.empty() : Optional.of(h); }"),
      inClass("Optional<Hive> f(Hive h) { return Optional.ofNullable(h); }"),
    ),
    rewrites(
      inClass("Optional<Hive> f() { return this.h != null ? Optional.of(this.h) : Optional.empty(); }"),
      inClass("Optional<Hive> f() { return Optional.ofNullable(this.h); }"),
    ),
    rewrites(
      inClass(
        "Optional<Hive> f(Hive h) { if (null == h) { return Optional.empty(); } return Optional.of(h); }",
      ),
      inClass("Optional<Hive> f(Hive h) { return Optional.ofNullable(h); }"),
    ),
    rewrites(
      "class A { Object f(Hive h) { return h == null ? java.util.Optional.empty() : java.util.Optional.of(h); } }\n",
      "class A { Object f(Hive h) { return java.util.Optional.ofNullable(h); } }\n",
    ),
    ignores(
      "import shelf.Optional;\nclass A { Object f(Hive h) { return h == null ? Optional.empty() : Optional.of(h); } }\n",
    ),
    rewrites(
      inClass("Optional<Hive> f(int n) { if (n == 0) return null; return Optional.of(h); }"),
      inClass("Optional<Hive> f(int n) { if (n == 0) return Optional.empty(); return Optional.of(h); }"),
      "likely",
    ),
    holds(
      inClass("Optional<Hive> f() { return g() == null ? Optional.empty() : Optional.of(g()); }"),
      "calls something",
    ),
    ignores(inClass("Hive f() { return null; }")),
    ignores(inClass("Optional<Hive> f() { return g(x -> { return null; }); }")),
    ignores(inClass("Optional<Hive> f(Hive h) { return h == null ? Optional.of(h) : Optional.empty(); }")),
    ignores(
      inClass("Optional<Hive> f(Hive h, Hive g) { return h == null ? Optional.empty() : Optional.of(g); }"),
    ),
  ],
});
