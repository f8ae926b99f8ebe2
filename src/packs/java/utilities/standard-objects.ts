import { everyUseOf, holes, java, rule, trialsIn, use } from "../../../core.js";
import { movesAsWhole } from "./only-equal.js";

const { name, x, y, all } = holes({
  name: { kind: "name", text: /^Objects$/ },
  x: "expression",
  y: "expression",
  all: "arguments",
});

const { rewrites, ignores } = trialsIn("java");
const inMethod = (head: string, code: string): string =>
  `${head}\nclass A {\n    int f(Object a, Object b) {\n        ${code}\n    }\n}\n`;
const OLD = "import com.google.common.base.Objects;\nimport java.util.List;\n";
const NEW = "import java.util.Objects;\nimport java.util.List;\n";

export const standardObjects = rule({
  id: "java/standard-objects",
  kind: "idiom",
  title: "Take Objects from the standard library",
  why: "The standard library has a class of the same name that does the same; one library less has to be known, shipped and kept up to date.",
  target: "7",
  was: java.import`import com.google.common.base.${name};`,
  where: [({ tree }) => movesAsWhole(tree)],
  uses: everyUseOf(name, [
    use(java`${name}.equal(${x}, ${y})`).becomes(java`${name}.equals(${x}, ${y})`),
    use(java`${name}.hashCode(${all})`).becomes(java`${name}.hash(${all})`),
  ]),
  becomes: java.import`import java.util.${name};`,
  trials: [
    rewrites(
      inMethod(OLD, "return Objects.equal(a, b) ? 0 : Objects.hashCode(a, Objects.equal(b, this));"),
      inMethod(NEW, "return Objects.equals(a, b) ? 0 : Objects.hash(a, Objects.equals(b, this));"),
    ),
    rewrites(
      inMethod("import com.google.common.base.Objects;\n", "return Objects.hashCode(a, b); // as ever"),
      inMethod("import java.util.Objects;\n", "return Objects.hash(a, b); // as ever"),
    ),
    ignores(
      inMethod(OLD, "return Objects.equal(a, com.google.common.base.Objects.firstNonNull(a, b)) ? 0 : 1;"),
    ),
    trialsIn("java", "6").ignores(inMethod(OLD, "return Objects.hashCode(a, b);")),
    // One that has no other is written beside it, by another rule.
    ignores(inMethod(OLD, "return Objects.firstNonNull(a, b);")),
    ignores(inMethod(OLD, "return g(Objects.equal(a, b), Objects.toStringHelper(this));")),
    ignores(inMethod(OLD, "return g(Objects::equal, Objects.equal(a, b));")),
    ignores(inMethod("import hive.Objects;\n", "return Objects.equal(a, b);")),
  ],
});
