import { holes, python, trialsIn } from "../../core.js";
import { calledIn, handleOf } from "../family/handles.js";
import { callWritten, leakRule } from "../family/leaks.js";
import { RESOURCES } from "./resources.js";

const { name, made } = holes({ name: "name", made: { kind: "expression", node: "call" } });
const { reports, ignores } = trialsIn("python");

export const leakingResource = leakRule({
  id: "python/leaking-resource",
  was: [python`${name} = ${made}`],
  name,
  made,
  mentions: RESOURCES.map((row) => calledIn(row).split(".").at(-1)!),
  acquires: (match) => handleOf(RESOURCES, match.the(made))?.answer.is === "yes",
  release: (use, match) =>
    callWritten(
      use,
      match.textOf(name),
      RESOURCES.map(({ release }) => release),
    ),
  byException: true,
  never: true,
  yieldsTo: ["python/scoped-resource"],
  trials: [
    reports(
      `
      def first(path):
          f = open(path)
          if f.read(1) == "":
              return None
          line = f.readline()
          f.close()
          keep(lambda: line)
          return f
      `.replace("          return f\n", ""),
      "where `return None` leaves (line 4)",
    ),
    reports(
      `
      def first(path):
          f = open(path)
          text = parse(f)
          f.close()
          f.close()
      `,
      "when `parse(f)` throws (line 3)",
      "likely",
    ),
    reports(
      `
      def first(path):
          f = open(path)
          print(f.read())
      `,
      "`f` is never released",
    ),
    // A `try` of its own around the release.
    ignores(`
      def first(path):
          f = open(path)
          try:
              return f.read()
          finally:
              try:
                  f.close()
              except OSError:
                  log()
    `),
    ignores(`
      def first(path):
          f = None
          try:
              f = open(path)
              keep(f.read())
          finally:
              if f is not None:
                  f.close()
    `),
    ignores(`
      def first(path):
          f = open(path)
          with f:
              return f.read()
    `),
    ignores(`
      def first(path):
          f = open(path)
          return f
    `),
    ignores(`
      def first(self, path):
          f = open(path)
          self.f = f
    `),
    ignores(`
      def first(path):
          f = open(path)
          try:
              return f.read()
          finally:
              f.close()
    `),
    ignores(`
      def first(path):
          f = open(path)
          return Reader(f)
    `),
    ignores(`
      def first(path):
          f = hive(path)
          print(f.read())
    `),
    ignores(
      "def f(path):\n    file = open(path)\n    try:\n        return file.read()\n    finally:\n        if not file.closed: file.close()\n",
    ),
    ignores(
      "def f(path):\n    file = open(path)\n    try:\n        return file.read()\n    finally:\n        file and file.close()\n",
    ),
    ignores(
      "def f(path):\n    file = open(path)\n    try:\n        return file.read()\n    finally:\n        if file is not None: file.close()\n",
    ),
  ],
});
