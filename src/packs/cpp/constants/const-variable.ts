import { condition, copy, holes, ofKind, rule, trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match, Reference, Segment, SyntaxNode } from "../../../core.js";
import { changeBy } from "./changed.js";
import { usesOfVariable, variableAt, type Variable } from "./variable.js";

const { declared } = holes({ declared: { kind: "statement", node: ["declaration", "for_range_loop"] } });

/** What is changed somewhere is not what the rule speaks of. */
function fits(node: SyntaxNode): boolean {
  const variable = variableAt(node);
  const uses = variable && usesOfVariable(variable);
  if (variable && uses && (isReleased(variable, uses) || isOwner(variable))) return false;
  // An object that nobody uses is there for its end, as a lock is.
  if (uses?.length === 0 && variable!.is === "object") return false;
  return uses !== undefined && !uses.some((use) => changeBy(variable!, use).is === "no");
}

/** An owner or a lock is there to let go of something, and a constant one is nobody's wish. */
function isOwner({ type, value }: Variable): boolean {
  const code = `${type.text} ${value?.text ?? ""}`;
  return /\b(unique_ptr|shared_ptr|weak_ptr|make_unique|make_shared|\w+_lock|lock_guard|future|thread)\b/.test(
    code,
  );
}

/** What is made and released by hand is to get an owner first. */
function isReleased({ is, value }: Variable, uses: readonly Reference[]): boolean {
  if (is !== "pointer") return false;
  const releases = uses.some(({ node }) => {
    const call = node.parent?.is("argument_list") ? node.parent.parent : node.closest(["delete_expression"]);
    const method = node.parent?.is("field_expression") ? node.parent.child("field")?.text : undefined;
    const callee = call?.is("delete_expression") ? "delete" : (call?.child("function")?.text ?? method ?? "");
    return /free|close|release|destroy|delete|unref/i.test(callee);
  });
  return releases || value?.is("new_expression") === true;
}

/** The first use of which it is not known whether it changes the variable. */
function isNeverChanged(match: Match): Answer {
  const variable = variableAt(match.the(declared))!;
  const answers = usesOfVariable(variable)!.map((use) => changeBy(variable, use));
  const doubt = answers.find((one) => one.is === "unknown");
  return doubt ?? yes("flow.written", `nothing gives \`${variable.name.text}\` another value`, variable.name);
}

const isSimple = (match: Match): boolean => {
  const { is } = variableAt(match.the(declared))!;
  return is === "scalar" || is === "pointer";
};

/** An object is constructed from its value as before, but a class may have methods that need it to change. */
function mayBeConstant(match: Match): Answer {
  const { is, type } = variableAt(match.the(declared))!;
  return is === "scalar" || is === "pointer"
    ? yes("type.is", "it is a number or a pointer", type)
    : unknown(
        "type.not-known",
        `an object of \`${type.text}\` could be meant to change, as a lock does`,
        type,
      );
}

function constant(match: Match): Segment[] {
  const node = match.the(declared);
  const { type, name, is } = variableAt(node)!;
  const at = is === "pointer" ? name.start : type.start;
  // Only what stands ahead of the place is part of the change, not the loop's body.
  return [copy(node.start, node.end, [{ start: at, end: at, text: "const " }])];
}

const { rewrites, ignores } = trialsIn("cpp");
const inFunction = (code: string): string =>
  `int step(int by);\nvoid read(int& into);\nvoid f(int a) {\n  ${code}\n}\n`;

export const constVariable = rule({
  id: "cpp/const-variable",
  kind: "idiom",
  title: "Declare variables const that never change",
  why: "The reader of a variable that may change must look for the place that changes it.",
  taste: true,
  was: ofKind(declared, { when: fits, together: (node) => [node] }),
  given: [
    condition("nothing gives it another value", isNeverChanged, { when: isSimple }),
    condition("nothing changes the object", isNeverChanged, {
      when: (match) => !isSimple(match),
      unknownIs: "possible",
    }),
    condition("it may be a constant", mayBeConstant),
  ],
  becomes: constant,
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
