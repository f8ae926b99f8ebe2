import { holes, python, trialsIn } from "../../core.js";
import { unnamedRule } from "../family/unnamed.js";
import { RESOURCES } from "./resources.js";

const { made, method, args, called, rest } = holes({
  made: { kind: "expression", node: "call" },
  method: "name",
  args: "arguments",
  called: "expression",
  rest: "arguments",
});
const { reports, ignores } = trialsIn("python");

export const unnamedResource = unnamedRule({
  id: "python/unnamed-resource",
  was: [
    python.expression`${made}.${method}(${args})`,
    python.expression`${called}(${made}, ${rest})`,
    python.expression`${called}(${args}, ${made})`,
  ],
  made,
  method,
  rows: RESOURCES.filter(({ scoped, unseen }) => scoped === "itself" && unseen === true),
  form: "a `with` block",
  trials: [
    reports("def f(p):\n    return open(p).read()\n", "`open(p)` is never closed"),
    reports("import json\ndef f(p):\n    return json.load(open(p))\n", "`open(p)`"),
    reports("import json\ndef f(p, x):\n    json.dump(x, open(p, 'w'))\n", "`open(p, 'w')`"),
    reports("import io\ndef f(p):\n    io.open(p, 'w').write('a')\n", "`io.open(p, 'w')`"),
    ignores("def f(p):\n    open(p).close()\n"),
    ignores("def f(p):\n    with open(p) as jars:\n        return jars.read()\n"),
    ignores("def f(p):\n    return shelf(open(p))\n"),
    ignores("def open(p): return p\ndef f(p):\n    return open(p).read()\n"),
    ignores("def f(p):\n    return list(p).index(3)\n"),
  ],
});
