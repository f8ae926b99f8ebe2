import { condition, cpp, no, rule, trialsIn, yes } from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { wantsPointer } from "./pointers.js";

const ZERO = 1;

/** A header in which nothing is C++ may be read by C, which has no nullptr. */
function isCpp({ tree, around }: Match): Answer {
  if (!/\.h$/.test(around.path)) return yes("form.fits", "the file is C++ by its name");
  const isPlainC = !/\b(class|template|namespace|public|private|virtual|constexpr|using)\b|::/.test(
    tree.text,
  );
  return isPlainC
    ? no("form.fits", "nothing in this header is C++, so C may read it too", tree.root)
    : yes("form.fits", "the header is C++");
}

const { rewrites, ignores, holds } = trialsIn("cpp");

export const nullPointer = rule({
  id: "cpp/null-pointer",
  kind: "idiom",
  title: "Use nullptr for a null pointer",
  why: "NULL and 0 are numbers: overloads and templates take them for one.",
  target: "11",
  was: [cpp.expression`NULL`, cpp.expression`0`],
  where: [
    (match) => match.alternative !== ZERO || wantsPointer(match.node).is === "yes",
    // `0` in `#if` and in a macro's body is not a pointer either way.
    (match) =>
      ![...match.node.ancestors()].some(
        (above) => above.kind.startsWith("preproc_if") && match.node.field === "condition",
      ),
  ],
  given: [
    condition("a pointer is wanted here", (match) => wantsPointer(match.node)),
    condition("the file is not read by C", isCpp),
  ],
  becomes: cpp`nullptr`,
  trials: [
    rewrites("int *p = NULL;\n", "int *p = nullptr;\n"),
    rewrites("int *p = 0;\n", "int *p = nullptr;\n"),
    rewrites(
      "void f(Hive *h) { if (h == NULL) return; }\n",
      "void f(Hive *h) { if (h == nullptr) return; }\n",
    ),
    rewrites(
      "void f(Hive *h) { if (0 != h) h = 0; }\n",
      "void f(Hive *h) { if (nullptr != h) h = nullptr; }\n",
    ),
    rewrites("Hive *f() { return NULL; }\n", "Hive *f() { return nullptr; }\n"),
    rewrites("void f(Hive *h = 0);\n", "void f(Hive *h = nullptr);\n"),
    rewrites(
      "struct A { Hive *h; void f() { this->h = NULL; h = 0; } };\n",
      "struct A { Hive *h; void f() { this->h = nullptr; h = nullptr; } };\n",
    ),
    rewrites("void f() { open(NULL); }\n", "void f() { open(nullptr); }\n", "likely"),
    rewrites("void f() { n->next = NULL; }\n", "void f() { n->next = nullptr; }\n", "likely"),
    holds("int n = NULL;\n", "is declared `int`"),
    holds("char c = NULL;\n", "is declared `char`"),
    holds("auto c = NULL;\n", "is declared `auto`"),
    holds("void f(int n) { if (n == NULL) return; }\n", "is declared `int`"),
    holds("void f() { g(NULL + 1); }\n", "counts with it"),
    holds("void f(bool b) { double d = b ? 1 : NULL; }\n", "is declared `double`"),
    rewrites("void f(int *q) { int *p = q ? q : NULL; }\n", "void f(int *q) { int *p = q ? q : nullptr; }\n"),
    ignores("int n = 0;\nvoid f(int n) { if (n == 0) g(0); }\n"),
    ignores("int *p = nullptr;\n"),
    ignores("int *p[] = { 0 };\nint f() { return 0; }\n"),
    trialsIn("cpp", "3").ignores("int *p = NULL;\n"),
  ],
});
