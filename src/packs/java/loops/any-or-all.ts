import { flagged, holes, rule, trialsIn } from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";
import { askedByMethod } from "../../family/by-methods.js";
import { isNotSeenFlagging, needNotAskAll } from "../../family/collecting.js";
import { asStream, STREAMS } from "./walked.js";

const { items } = holes({ items: "expression" });
const { rewrites, ignores, holds } = trialsIn("java", "8");
const inMethod = (code: string, head = "List<Hive> hives, int n"): string =>
  `import java.util.*;\n\nclass Hive {\n    int age;\n    boolean open;\n    boolean isQuiet() { return age > 3; }\n    boolean ask() throws IOException { return open; }\n}\n\nclass A {\n    boolean f(${head}) {\n        ${code}\n    }\n}\n`;

const testsOf = ({ flagged: { sieves } }: Match): SyntaxNode[] => sieves.map(({ test }) => test);

export const anyOrAll = rule({
  id: "java/any-or-all",
  kind: "idiom",
  title: "Use anyMatch, allMatch or noneMatch to ask whether items pass a test",
  why: "The name of the method says what the loop is for, and the reader need not see where it is left.",
  taste: true,
  target: "8",
  was: flagged(items),
  given: [
    ...asStream(({ flagged: found }) => found, testsOf, { takesNumbers: true }),
    ...isNotSeenFlagging(),
    needNotAskAll(),
  ],
  becomes: (match) => askedByMethod(match, STREAMS),
  trials: [
    rewrites(
      inMethod(
        "for (Hive hive : hives) {\n            if (hive.age > n) {\n                return true;\n            }\n        }\n        return false;",
      ),
      inMethod("return hives.stream().anyMatch(hive -> hive.age > n);"),
    ),
    rewrites(
      inMethod(
        "boolean ok = true;\n        for (Hive hive : hives) {\n            if (!hive.open) {\n                ok = false;\n                break;\n            }\n        }\n        return ok;",
      ),
      inMethod("boolean ok = hives.stream().allMatch(hive -> hive.open);\n        return ok;"),
    ),
    rewrites(
      inMethod(
        "for (Hive hive : hives)\n            if (hive.isQuiet() || hive.age > n) return false;\n        return true;",
      ),
      inMethod("return hives.stream().noneMatch(hive -> hive.isQuiet() || hive.age > n);"),
    ),
    rewrites(
      inMethod("for (int one : ns) if (one > 3) return true;\n        return false;", "int[] ns"),
      inMethod("return Arrays.stream(ns).anyMatch(one -> one > 3);", "int[] ns"),
    ),
    rewrites(
      inMethod("for (Hive hive : all()) if (hive.open) return true;\n        return false;"),
      inMethod("return all().stream().anyMatch(hive -> hive.open);"),
      "possible",
    ),
    rewrites(
      inMethod(
        "for (Hive hive : hives) if (hive.isQuiet() == false) return false;\n        return true;",
        "Hive... hives",
      ),
      inMethod("return Arrays.stream(hives).allMatch(hive -> hive.isQuiet());", "Hive... hives"),
    ),
    holds(
      inMethod("for (Hive hive : hives) if (n++ > hive.age) return true;\n        return false;"),
      "changes something",
    ),
    holds(
      inMethod(
        "for (Hive hive : hives) if (!seen.add(hive)) return true;\n        return false;",
        "List<Hive> hives, Set<Hive> seen",
      ),
      "changes something",
    ),
    // What is thrown must be declared, which a lambda cannot do.
    holds(
      inMethod("for (Hive hive : hives) if (hive.ask()) return true;\n        return false;"),
      "declares that it throws",
    ),
    holds(
      inMethod("n++;\n        for (Hive hive : hives) if (hive.age > n) return true;\n        return false;"),
      "more than once",
    ),
    holds(
      inMethod(
        "for (char one : letters) if (one == 'x') return true;\n        return false;",
        "char[] letters",
      ),
      "no stream of objects",
    ),
    holds(
      inMethod(
        "for (int one : ns) if (one == n) return true;\n        return false;",
        "List<Integer> ns, Integer n",
      ),
      "out of its object",
    ),
    holds(
      inMethod(
        "for (Hive hive : hives) if (hive.open) return true;\n        return false;",
        "Iterable<Hive> hives",
      ),
      "is no collection",
    ),
    holds(
      inMethod(
        "boolean any = false;\n        for (Hive hive : hives) if (hive.take()) any = true;\n        return any;",
      ),
      "no longer evaluated",
    ),
    ignores(inMethod("for (Hive hive : hives) if (hive.open) { n++; return true; }\n        return false;")),
    ignores(inMethod("for (Hive hive : hives) if (hive.open) return true;\n        return n > 3;")),
    trialsIn("java", "7").ignores(
      inMethod("for (Hive hive : hives) if (hive.open) return true;\n        return false;"),
    ),
  ],
});
