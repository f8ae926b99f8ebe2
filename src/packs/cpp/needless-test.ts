import {
  condition,
  consistsOf,
  cpp,
  holes,
  isLibraryFunction,
  isPointer,
  onlyIf,
  present,
  rule,
  shortened,
  sideEffectFree,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";

const { pointer, body, empty } = holes({
  pointer: "expression",
  body: "statements",
  empty: { kind: "expression", text: /^(NULL|nullptr|0)$/ },
});

/** What is harmless for a pointer to nothing. */
const RELEASES = [cpp`delete ${pointer};`, cpp`delete[] ${pointer};`, cpp`free(${pointer});`];
const EMPTIES = cpp`${pointer} = ${empty};`;

const { rewrites, ignores, holds } = trialsIn("cpp");

export const needlessTest = rule({
  id: "cpp/needless-test",
  kind: "idiom",
  title: "Remove the null check before a pointer is released",
  why: "delete and free do nothing for a null pointer, so the test only makes the reader wonder.",
  was: [
    // Only of a pointer is this a test for null.
    cpp`if (${pointer} != 0) { ${body} }`,
    onlyIf(present(pointer, { or: ["truth"] }), body),
  ],
  where: [
    consistsOf(
      body,
      RELEASES.flatMap((release) => [release, cpp`${release} ${EMPTIES}`]),
    ),
  ],
  given: [
    sideEffectFree(pointer),
    condition("it is a plain pointer", (match) => {
      const node = match.the(pointer);
      return isPointer(node)
        ? yes("type.is", `\`${node.text}\` is declared as a pointer`, node)
        : unknown(
            "type.is",
            `\`${shortened(node.text)}\` could be an object that turns itself into a pointer`,
            node,
          );
    }),
    condition("`free` is the one of the C library", (match) => {
      const call = [...match.node.descendants()].find(
        (node) => node.is("call_expression") && node.child("function")?.text === "free",
      );
      return call ? isLibraryFunction(call.child("function")!) : yes("type.is", "it is deleted");
    }),
  ],
  becomes: cpp`${body}`,
  trials: [
    rewrites("void f(Hive* p) { if (p) delete p; }\n", "void f(Hive* p) { delete p; }\n"),
    rewrites("void f(Hive* p) { if (p != NULL) { delete[] p; } }\n", "void f(Hive* p) { delete[] p; }\n"),
    rewrites("void f(Hive* p) { if (nullptr != p) free(p); }\n", "void f(Hive* p) { free(p); }\n"),
    rewrites("void f() { if (p) delete p; }\n", "void f() { delete p; }\n", "likely"),
    holds("void f(Hive* p, bool a) { if (a) if (p) { delete p; p = 0; } }\n", "without braces"),
    rewrites(
      `
      struct Hive { ~Hive(); Queen* queen_; };
      Hive::~Hive() {
        if (queen_ != 0) {
          // she goes last
          delete queen_;
          queen_ = NULL;
        }
      }
      `,
      `
      struct Hive { ~Hive(); Queen* queen_; };
      Hive::~Hive() {
        // she goes last
        delete queen_;
        queen_ = NULL;
      }
      `,
    ),
    rewrites(
      "struct A { Hive* p; void f() { if (this->p) delete this->p; } };\n",
      "struct A { Hive* p; void f() { delete this->p; } };\n",
    ),
    rewrites(
      "void f(Hive* p) { if (!p) {} else { delete p; p = NULL; } }\n",
      "void f(Hive* p) { delete p; p = NULL; }\n",
    ),
    holds("void f() { if (next()) delete next(); }\n", "calls something"),
    ignores("void f() { if (p) delete q; }\n"),
    ignores("void f() { if (!p) delete p; }\n"),
    ignores("void f() { if (p) delete p; else g(); }\n"),
    ignores("void f() { if (p) { delete p; n--; } }\n"),
    ignores("void f() { if (p) fclose(p); }\n"),
    ignores("void f() { if (p == 0) delete p; }\n"),
    ignores("void f() { if (p && n) delete p; }\n"),
  ],
});
