import {
  condition,
  functionAround,
  holes,
  ofKind,
  rule,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Match, Segment } from "../../../core.js";

const { statement } = holes({ statement: { kind: "statement", node: "exec_statement" } });

function called(match: Match): Segment[] {
  const node = match.the(statement);
  const [code, ...names] = node.parts;
  // `exec (code, names)` was a statement with a tuple.
  const inner = code!.is("tuple") && names.length === 0 ? code!.parts : [code!, ...names];
  return [text(`exec(${inner.map((one) => one.text).join(", ")})`)];
}

const { rewrites, ignores } = trialsIn("python");

export const execCall = rule({
  id: "python/exec-call",
  kind: "breaks",
  title: "Call exec as a function",
  why: "Python 3 has no statement of that name.",
  was: ofKind(statement, { together: (node) => [node] }),
  mentions: ["exec"],
  target: "3",
  given: [
    condition("the code does not set variables of the function", (match) => {
      const node = match.the(statement);
      const around =
        node.parts.length === 1 && !node.firstPart!.is("tuple") ? functionAround(node) : undefined;
      return around
        ? unknown(
            "name.reflection",
            "variables that the code sets are not those of the function any more",
            node,
          )
        : yes("name.reflection", "where the code keeps its names is said, or it is the module");
    }),
  ],
  becomes: called,
  trials: [
    rewrites("exec code\n", "exec(code)\n"),
    rewrites('exec "a = 1" in names  # once\n', 'exec("a = 1", names)  # once\n'),
    rewrites("def f(c):\n    exec c in {}, d\n", "def f(c):\n    exec(c, {}, d)\n"),
    rewrites("def f(c):\n    exec c\n", "def f(c):\n    exec(c)\n", "likely"),
    ignores("exec(code, names)\n"),
    ignores("db.exec(code)\n"),
    trialsIn("python", "2.7").ignores("exec code\n"),
  ],
});
