import { condition, holes, java, rule, trialsIn } from "../../../core.js";
import { isLibraryName } from "../types.js";

const { list, order } = holes({ list: "expression", order: "expression" });
const { rewrites, ignores, holds } = trialsIn("java", "8");
const inMethod = (code: string, imports = "import java.util.*;\n"): string =>
  `${imports}class A {\n    void f(List<Hive> hives, Comparator<Hive> by) {\n        ${code}\n    }\n}\n`;

export const listSort = rule({
  id: "java/list-sort",
  kind: "idiom",
  title: "Sort a list by its own method",
  why: "The list stands among the arguments of a helper that hands the work back to it.",
  target: "8",
  was: java.expression`Collections.sort(${list}, ${order})`,
  given: [
    condition("`Collections` is the one of the library", (match) =>
      isLibraryName("Collections", "java.util", match),
    ),
  ],
  becomes: java.expression`${list}.sort(${order})`,
  trials: [
    rewrites(inMethod("Collections.sort(hives, by);"), inMethod("hives.sort(by);")),
    rewrites(
      inMethod("Collections.sort(this.all(), by.reversed()); // by age"),
      inMethod("this.all().sort(by.reversed()); // by age"),
    ),
    rewrites(
      inMethod(
        "java.util.function.Consumer<List<Hive>> c = x -> Collections.sort(x, (a, b) -> a.age - b.age);",
      ),
      inMethod("java.util.function.Consumer<List<Hive>> c = x -> x.sort((a, b) -> a.age - b.age);"),
    ),
    rewrites(inMethod("Collections.sort((List<Hive>) all, by);"), inMethod("((List<Hive>) all).sort(by);")),
    rewrites(
      inMethod("Collections.sort(late ? hives : others, by);"),
      inMethod("(late ? hives : others).sort(by);"),
    ),
    // Its order is that of the items themselves, which the method would only be told by null.
    ignores(inMethod("Collections.sort(hives);")),
    holds(inMethod("Collections.sort(hives, by);", "import hive.Collections;\n"), "is imported from"),
    ignores(inMethod("Arrays.sort(hives, by);")),
    trialsIn("java", "7").ignores(inMethod("Collections.sort(hives, by);")),
  ],
});
