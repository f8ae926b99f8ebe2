import { condition, holes, need, python, rule, trialsIn, yes } from "../../../core.js";
import { isPath } from "./path-object.js";

const { value } = holes({ value: "expression" });

const { rewrites, ignores } = trialsIn("python");

export const needlessPath = rule({
  id: "python/needless-path",
  kind: "idiom",
  title: "Use a path object as it is",
  why: "Making a path object of one gives an equal one.",
  was: python.expression`${need("pathlib", "Path")}(${value})`,
  where: [(match) => isPath(match.the(value))],
  given: [
    condition("it is a path object", (match) =>
      yes("value.kind", `\`${match.textOf(value)}\` is a path object`, match.the(value)),
    ),
  ],
  becomes: python.expression`${value}`,
  trials: [
    rewrites(
      "from pathlib import Path\ndef f(a):\n    b = Path(a) / 'x'\n    return Path(b) / 'y'\n",
      "from pathlib import Path\ndef f(a):\n    b = Path(a) / 'x'\n    return b / 'y'\n",
    ),
    rewrites(
      "import pathlib\ndef f(a):\n    b = pathlib.Path(a)\n    return pathlib.Path(b).name\n",
      "import pathlib\ndef f(a):\n    b = pathlib.Path(a)\n    return b.name\n",
    ),
    ignores("from pathlib import Path\ndef f(a):\n    b = str(Path(a))\n    return Path(b)\n"),
    ignores("from pathlib import Path\ndef f(a):\n    return Path(a)\n"),
    ignores("from pathlib import Path\ndef f(a, b):\n    if a:\n        b = Path(a)\n    return Path(b)\n"),
    ignores("from pathlib import Path\ndef f(b):\n    b = Path(b)\n    return Path(b)\n"),
  ],
});
