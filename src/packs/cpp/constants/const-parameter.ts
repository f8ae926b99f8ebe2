import { rule, trialsIn } from "../../../core.js";
import { neverChanged } from "./never-changed.js";
import { PARAMETERS } from "./variable.js";

const { rewrites, ignores } = trialsIn("cpp");

export const constParameter = rule({
  ...neverChanged(PARAMETERS),
  id: "cpp/const-parameter",
  kind: "idiom",
  title: "Declare parameters const that never change",
  why: "In a long function, a parameter that may change can be something else in the middle than at the head.",
  trials: [
    rewrites("int f(int n) { return n + 1; }\n", "int f(const int n) { return n + 1; }\n"),
    rewrites("void f(Hive* hive) { hive->weigh(); }\n", "void f(Hive* const hive) { hive->weigh(); }\n"),
    rewrites(
      "struct Jar { int kg(int tare) const { return all - tare; } int all; };\n",
      "struct Jar { int kg(const int tare) const { return all - tare; } int all; };\n",
    ),
    // A declaration that stands elsewhere says the same with `const` and without.
    rewrites(
      "int twice(int n);\nint twice(int n) { return n * 2; }\n",
      "int twice(int n);\nint twice(const int n) { return n * 2; }\n",
    ),
    rewrites(
      "int f(bool all = true) { return all ? 1 : 2; }\n",
      "int f(const bool all = true) { return all ? 1 : 2; }\n",
    ),
    rewrites(
      "int* f(int from) {\n  auto add = [from](int n) { return from + n; };\n  return make(add);\n}\n",
      "int* f(const int from) {\n  auto add = [from](const int n) { return from + n; };\n  return make(add);\n}\n",
    ),
    rewrites("void f(int n) { elsewhere(n); }\n", "void f(const int n) { elsewhere(n); }\n", "likely"),
    rewrites(
      "struct Scale { int& kg; explicit Scale(int by) : kg(by) {} };\n",
      "struct Scale { int& kg; explicit Scale(const int by) : kg(by) {} };\n",
      "likely",
    ),
    rewrites(
      "bool f(std::string name) { return name == other; }\n",
      "bool f(const std::string name) { return name == other; }\n",
      "likely",
    ),
    ignores("int f(int n);\n"),
    ignores("int f(int) { return 1; }\n"),
    ignores("int f(int n) { return 1; }\n"),
    ignores("int f(const int n) { return n; }\n"),
    ignores("int f(int n) { while (n > 0) n--; return 1; }\n"),
    ignores("int f(int n) { auto next = [n]() mutable { return ++n; }; return next(); }\n"),
    ignores("int f(int& n) { return n; }\n"),
    ignores("int f(const Jar& jar) { return jar.kg; }\n"),
    ignores("template <class T> void f(T&& jar) { use(jar); }\n"),
    ignores("int f(int list[]) { return list[0]; }\n"),
    ignores("void f(int n) { int& same = n; same = 2; }\n"),
    ignores("std::string f(std::string name) { return name; }\n"),
    ignores("void f(std::string name) { keep(std::move(name)); }\n"),
    ignores("void f(Hive* hive) { delete hive; }\n"),
    ignores("task f(std::string name) { co_await next(); if (name == other) stop(); }\n"),
    ignores("void f(int n) { std::vector<decltype(n)> all; }\n"),
    ignores("#define NEXT() { ++n; }\nint f(int n) {\n  NEXT()\n  step(n);\n}\n"),
    ignores("template <int n> int f() { return n; }\n"),
    ignores("void f() { try { g(); } catch (int n) { use(n); } }\n"),
  ],
});
