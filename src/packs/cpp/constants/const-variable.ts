import { rule, trialsIn } from "../../../core.js";
import { neverChanged } from "./never-changed.js";

const { rewrites, ignores } = trialsIn("cpp");
const inFunction = (code: string): string =>
  `int step(int by);\nvoid read(int& into);\nvoid f(int a) {\n  ${code}\n}\n`;

export const constVariable = rule({
  ...neverChanged(["declaration", "for_range_loop"]),
  id: "cpp/const-variable",
  kind: "idiom",
  title: "Declare variables const that never change",
  why: "The reader of a variable that may change must look for the place that changes it.",
  trials: [
    rewrites(
      inFunction("int n = a + 1;\n  return step(n);"),
      inFunction("const int n = a + 1;\n  return step(n);"),
    ),
    rewrites(
      inFunction("char *p = name();\n  p[0] = 1;\n  *p = 2;"),
      inFunction("char *const p = name();\n  p[0] = 1;\n  *p = 2;"),
    ),
    rewrites(
      inFunction("Hive* hive = find(a);\n  hive->weigh();"),
      inFunction("Hive* const hive = find(a);\n  hive->weigh();"),
    ),
    rewrites(
      "static int limit = 5;\nint f() { return limit; }\n",
      "static const int limit = 5;\nint f() { return limit; }\n",
    ),
    rewrites(
      "namespace {\ndouble rate = 0.5;\n}\ndouble f() { return rate * 2; }\n",
      "namespace {\nconst double rate = 0.5;\n}\ndouble f() { return rate * 2; }\n",
    ),
    rewrites(
      inFunction("unsigned long m{3};\n  if (m > 2) return;"),
      inFunction("const unsigned long m{3};\n  if (m > 2) return;"),
    ),
    // What is elsewhere may take a reference.
    rewrites(
      inFunction("int n = a;\n  elsewhere(n);"),
      inFunction("const int n = a;\n  elsewhere(n);"),
      "likely",
    ),
    rewrites(
      inFunction("std::string s = name();\n  if (s == other) return;"),
      inFunction("const std::string s = name();\n  if (s == other) return;"),
      "likely",
    ),
    rewrites(
      inFunction("Box b = make();\n  b.open();"),
      inFunction("const Box b = make();\n  b.open();"),
      "possible",
    ),
    rewrites(
      inFunction("for (auto e : list()) {\n    step(e.size);\n  }"),
      inFunction("for (const auto e : list()) {\n    step(e.size);\n  }"),
      "possible",
    ),
    ignores(inFunction("Hive* hive = new Hive(a);\n  step(hive->size);")),
    ignores(inFunction("auto hive = std::make_unique<Hive>();\n  hive->weigh();")),
    ignores(inFunction("FILE* file = open(a);\n  fclose(file);")),
    ignores(inFunction("int n = a;\n  n = 2;")),
    ignores(inFunction("int n = a;\n  n++;")),
    ignores(inFunction("int n = a;\n  read(n);")),
    ignores(inFunction("int n = a;\n  int& r = n;\n  r = 2;")),
    ignores(inFunction("int n = a;\n  scan(&n);")),
    ignores(inFunction("int n = a;\n  step([&n] { n = 2; });")),
    ignores(inFunction("const int n = a;")),
    ignores(inFunction("int n = 1, m = 2;")),
    ignores(inFunction("int n;\n  step(n);")),
    ignores("int limit = 5;\nint f() { return limit; }\n"),
    ignores("int& f() { static int n = 1; return n; }\n"),
    ignores(inFunction("std::string s = name();\n  return s;")),
    // A class with a macro in its head looks like a function.
    ignores("class EXPORT Hive {\npublic:\n  Hive();\n  bool full{true};\n};\n"),
    ignores(`#define NEXT() { ++n; }\n${inFunction("int n = a;\n  NEXT()\n  step(n);")}`),
    ignores(inFunction("double d = 0;\n  in >> d;")),
    ignores(inFunction("int n = 0;\n  for (;;) n += 1;")),
  ],
});
