import {
  condition,
  holes,
  isNamedLike,
  python,
  rule,
  sideEffectFree,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../index.js";
import type { Answer, Match } from "../../index.js";
import { isDict } from "./lookup-or-default.js";

const { dict, key } = holes({ dict: "expression", key: "expression" });

const { rewrites, holds, ignores } = trialsIn("python");

/** A class that stands for a dict may have no default in its `pop`. */
function popsWithDefault(match: Match): Answer {
  const node = match.the(dict);
  const type = typeOf(node);
  return type && isNamedLike(type.name, "map", node)
    ? yes("type.is", type.why, type.at)
    : unknown("type.is", `the \`pop\` of \`${node.text}\` could take no default`, node);
}

export const removedIfThere = rule({
  id: "python/removed-if-there",
  kind: "idiom",
  title: "Use pop with a default to remove a key that may be missing",
  why: "The key is looked for twice, and another thread can remove it in between.",
  was: [
    python`
      if ${key} in ${dict}:
          del ${dict}[${key}]
    `,
    python`
      if ${key} in ${dict}:
          ${dict}.pop(${key})
    `,
  ],
  given: [
    condition("it is a dict", (match) => isDict(match, dict), { unknownIs: "possible" }),
    condition("its `pop` takes a default", popsWithDefault),
    sideEffectFree(dict),
    sideEffectFree(key),
  ],
  becomes: python`${dict}.pop(${key}, None)`,
  trials: [
    rewrites(
      "def f(jars: dict, k):\n    if k in jars:\n        del jars[k]\n",
      "def f(jars: dict, k):\n    jars.pop(k, None)\n",
    ),
    rewrites(
      "def f(jars: dict, k):\n    if k in jars:\n        jars.pop(k)  # gone\n    print(k)\n",
      "def f(jars: dict, k):\n    jars.pop(k, None)  # gone\n    print(k)\n",
    ),
    rewrites(
      "def f(jars, k):\n    if k in jars:\n        del jars[k]\n",
      "def f(jars, k):\n    jars.pop(k, None)\n",
      "possible",
    ),
    rewrites(
      "import os\nif 'HIVE' in os.environ:\n    del os.environ['HIVE']\n",
      "import os\nos.environ.pop('HIVE', None)\n",
    ),
    holds("def f(jars: list, k):\n    if k in jars:\n        del jars[k]\n", "which has no"),
    holds("def f(jars: dict):\n    if take() in jars:\n        del jars[take()]\n", "calls something"),
    ignores("def f(jars: dict, k):\n    if k in jars:\n        del jars[k]\n    else:\n        print(k)\n"),
    ignores("def f(jars: dict, k, n):\n    if k in jars:\n        del jars[n]\n"),
    ignores("def f(jars: dict, k):\n    if k not in jars:\n        del jars[k]\n"),
    ignores("def f(jars: dict, k):\n    if k in jars:\n        return jars.pop(k)\n"),
  ],
});
