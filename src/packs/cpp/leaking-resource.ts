import { cpp, holes, trialsIn } from "../../core.js";
import { callWritten, leakRule } from "../family/leaks.js";
import { isInFunction } from "./pointers.js";
import { RESOURCES } from "./owned/handles.js";
import { calledIn } from "../family/handles.js";

const { type, name, made } = holes({
  type: "type",
  name: "name",
  made: { kind: "expression", node: ["new_expression", "call_expression"] },
});
const { reports, ignores } = trialsIn("cpp");

export const leakingResource = leakRule({
  id: "cpp/leaking-resource",
  was: [cpp`${type} *${name} = ${made};`],
  name,
  made,
  mentions: ["new", ...RESOURCES.map(calledIn)],
  acquires: (match) => {
    const node = match.the(made);
    if (!isInFunction(match.node)) return false;
    if (node.is("new_expression")) return !/^(::)?new\s*\(/.test(node.text);
    const called = node.child("function")?.text.replace(/^(::|std::)/, "");
    return RESOURCES.some((row) => calledIn(row) === called);
  },
  release: (use, match) => {
    let { parent } = use;
    while (parent?.is("parenthesized_expression")) parent = parent.parent;
    if (match.the(made).is("new_expression")) return parent?.is("delete_expression") ? parent : undefined;
    return callWritten(
      use,
      match.textOf(name),
      [...RESOURCES, ...RESOURCES.map((row) => ({ ...row, release: `std::${row.release}` }))].map(
        ({ release }) => release,
      ),
    );
  },
  byException: true,
  never: true,
  yieldsTo: ["cpp/owned-local", "cpp/owned-handle", "cpp/owned-array"],
  trials: [
    reports(
      "int f(bool b) { Queen* q = new Queen(1); if (b) return 1; delete q; return 0; }\n",
      "where `return 1;` leaves",
    ),
    reports(
      "int f() { FILE* a = fopen(p, m); if (!a) return 1; if (feof(a)) return 2; fclose(a); return 0; }\n",
      "where `return 2;` leaves",
    ),
    reports(
      "int f() { FILE* a = fopen(p, m); if (!a) return 1; if (weigh(a)) return 2; fclose(a); return 0; }\n",
      "where `return 2;` leaves",
      "likely",
    ),
    reports("void f() { Queen* q = new Queen(1); q->mark(); }\n", "never released"),
    reports(
      "void f() { Queen* q = new Queen(1); q->mark(); delete q; }\n",
      "when `q->mark()` throws",
      "likely",
    ),
    reports("void f(bool b) { Queen* q = new Queen(1); if (b) delete q; }\n", "not at the end"),
    reports(
      "int f(bool b) { Queen* q = new Queen(1); if (b) return 1; delete (q); return 0; }\n",
      "where `return 1;` leaves",
    ),
    // A class with a macro in its head is read as if it were a function.
    ignores("class EXPORT Hive {\npublic:\n  Queen* q = new Queen(1);\n  ~Hive() { delete q; }\n};\n"),
    ignores("int f() { FILE* a = fopen(p, m); memset(b, 0, 10); fclose(a); return strlen(b); }\n"),
    ignores("Queen* f() { Queen* q = new Queen(1); return q; }\n"),
    ignores("void f() { Queen* q = new Queen(1); keep(q); }\n"),
    ignores("void f() { Queen* q = new Queen(1); kept_ = q; }\n"),
    ignores("int f() { FILE* a = fopen(p, m); if (!a) return 1; fclose(a); return 0; }\n"),
  ],
});
