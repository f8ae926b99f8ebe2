import { flagged, holes, need, rule, trialsIn } from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";
import { askedByMethod } from "../../family/by-methods.js";
import { isNotSeenFlagging, needNotAskAll } from "../../family/collecting.js";
import { asMethods, LINQ } from "./walked.js";

const { items } = holes({ items: "expression" });
const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string, head = "List<Hive> hives, int n"): string =>
  `using System.Collections.Generic;\nusing System.Linq;\n\nclass Hive { public int Age; public bool Open; public bool IsQuiet() { return Age > 3; } }\n\nclass A\n{\n    bool F(${head})\n    {\n        ${code}\n    }\n}\n`;

const testsOf = ({ flagged: { sieves } }: Match): SyntaxNode[] => sieves.map(({ test }) => test);

export const anyOrAll = rule({
  id: "csharp/any-or-all",
  kind: "idiom",
  title: "Use Any or All to ask whether items pass a test",
  why: "The name of the method says what the loop is for, and the reader need not see where it is left.",
  taste: true,
  target: "3.0",
  was: flagged(items),
  given: [...asMethods(({ flagged: found }) => found, testsOf), ...isNotSeenFlagging(), needNotAskAll()],
  becomes: (match) => askedByMethod(match, LINQ),
  needs: [need("System.Linq")],
  trials: [
    rewrites(
      inMethod(
        "if (hives == null) return false;\n        foreach (var hive in hives)\n        {\n            if (hive.Open) return true;\n        }\n        return false;",
      ),
      inMethod("if (hives == null) return false;\n        return hives.Any(hive => hive.Open);"),
    ),
    // Where there is no list, another exception is thrown.
    rewrites(
      inMethod(
        "foreach (var hive in hives)\n        {\n            if (hive.Age > n)\n            {\n                return true;\n            }\n        }\n        return false;",
      ),
      inMethod("return hives.Any(hive => hive.Age > n);"),
      "likely",
    ),
    rewrites(
      inMethod(
        "bool ok = true;\n        foreach (Hive hive in hives)\n        {\n            if (!hive.Open) { ok = false; break; }\n        }\n        return ok;",
      ),
      inMethod("bool ok = hives.All(hive => hive.Open);\n        return ok;"),
      "likely",
    ),
    rewrites(
      "using System.Collections.Generic;\n\nclass A\n{\n    bool F(string[] names)\n    {\n        foreach (var name in names)\n            if (name.Length > 3) return false;\n        return true;\n    }\n}\n",
      "using System.Collections.Generic;\nusing System.Linq;\n\nclass A\n{\n    bool F(string[] names)\n    {\n        return !names.Any(name => name.Length > 3);\n    }\n}\n",
      "likely",
    ),
    rewrites(
      inMethod(
        "foreach (var hive in hives) if (hive.IsQuiet() && (hive.Open || n > 3)) return true;\n        return false;",
      ),
      inMethod("return hives.Any(hive => hive.IsQuiet() && (hive.Open || n > 3));"),
      "likely",
    ),
    // A query would take the function for an expression, and a list of other objects has no such methods.
    rewrites(
      inMethod("foreach (var hive in All()) if (hive.Open) return true;\n        return false;"),
      inMethod("return All().Any(hive => hive.Open);"),
      "possible",
    ),
    holds(
      inMethod(
        "foreach (Hive hive in hives) if (hive.Open) return true;\n        return false;",
        "List<object> hives",
      ),
      "converts each",
    ),
    holds(
      inMethod(
        "foreach (Hive hive in hives) if (hive.Open) return true;\n        return false;",
        "ArrayList hives",
      ),
      "no such methods",
    ),
    holds(
      inMethod(
        "foreach (var hive in hives) if (hive.Open) return true;\n        return false;",
        "IQueryable<Hive> hives",
      ),
      "something else",
    ),
    holds(
      inMethod(
        "foreach (var hive in hives) if (hive.Age > n) return true;\n        return false;",
        "List<Hive> hives, ref int n",
      ),
      "cannot take along",
    ),
    holds(
      "using System.Collections.Generic;\nstruct A { int n; bool F(List<int> ns) { foreach (var one in ns) if (one > n) return true; return false; } }",
      "of a struct",
    ),
    holds(
      inMethod("foreach (var hive in hives) if (await hive.Ask()) return true;\n        return false;"),
      "may not stand",
    ),
    holds(
      inMethod(
        "bool any = false;\n        foreach (var hive in hives) if (hive.Take()) any = true;\n        return any;",
      ),
      "no longer evaluated",
    ),
    ignores(
      inMethod("foreach (var hive in hives) if (hive.Open) { n++; return true; }\n        return false;"),
    ),
    ignores(inMethod("foreach (var hive in hives) if (hive.Open) return true;\n        return n > 3;")),
  ],
});
