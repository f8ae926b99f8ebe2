import { cpp, holes, rule, sideEffectFree, trialsIn } from "../../index.js";

const { pointer, empty } = holes({
  pointer: "expression",
  empty: { kind: "expression", text: /^(NULL|nullptr|0)$/ },
});

const TESTS = [cpp`${pointer}`, cpp`${pointer} != nullptr`, cpp`${pointer} != NULL`, cpp`${pointer} != 0`];
/** What is harmless for a pointer to nothing. */
const RELEASES = [cpp`delete ${pointer};`, cpp`delete[] ${pointer};`, cpp`free(${pointer});`];

const FORMS = RELEASES.flatMap((release) =>
  TESTS.flatMap((test) => [
    { was: cpp`if (${test}) { ${release} }`, becomes: release },
    {
      was: cpp`if (${test}) { ${release} ${pointer} = ${empty}; }`,
      becomes: cpp`
        ${release}
        ${pointer} = ${empty};
      `,
    },
  ]),
);

const { rewrites, ignores, holds } = trialsIn("cpp");

export const needlessTest = rule({
  id: "cpp/needless-test",
  kind: "idiom",
  title: "Release a pointer without asking whether it is null",
  why: "delete and free do nothing for a null pointer, so the test only makes the reader wonder.",
  was: FORMS.map(({ was }) => was),
  given: [sideEffectFree(pointer)],
  becomes: (match) => FORMS[match.alternative]!.becomes,
  trials: [
    rewrites("void f() { if (p) delete p; }\n", "void f() { delete p; }\n"),
    rewrites("void f() { if (p != NULL) { delete[] p; } }\n", "void f() { delete[] p; }\n"),
    rewrites("void f() { if (nullptr != p) free(p); }\n", "void f() { free(p); }\n"),
    rewrites(
      `
      Hive::~Hive() {
        if (queen_ != 0) {
          // she goes last
          delete queen_;
          queen_ = NULL;
        }
      }
      `,
      `
      Hive::~Hive() {
        // she goes last
        delete queen_;
        queen_ = NULL;
      }
      `,
    ),
    rewrites("void f() { if (this->p) delete this->p; }\n", "void f() { delete this->p; }\n"),
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
