import {
  condition,
  holes,
  isNamedLike,
  isOfTrait,
  presenceOf,
  python,
  rule,
  sameCode,
  sideEffectFree,
  trialsIn,
  typeOf,
  unknown,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";

const { test, dict, key } = holes({ test: "expression", dict: "expression", key: "expression" });

const { rewrites, holds, ignores } = trialsIn("python");

/** Is the key that is removed the one that is asked for? */
function asksForKey(match: Match): boolean {
  const asked = presenceOf(match.the(test));
  return (
    asked.key !== undefined &&
    asked.isThere &&
    sameCode(asked.key, match.the(key)) &&
    sameCode(asked.subject, match.the(dict))
  );
}

const DICT = { what: "dict", methods: ["__contains__", "__delitem__", "pop"] };

/** Is it a dict, of which no class of the project says otherwise how an item is removed? */
function isDict(match: Match): Answer {
  const node = match.the(dict);
  const type = typeOf(node);
  if (!type)
    return unknown("type.is", `\`${node.text}\` could be something whose \`pop\` takes no default`, node);
  const answer = isOfTrait(node, "map", DICT);
  const isOwn = type.declared !== undefined && type.declared.as !== "import";
  const isOther = isNamedLike(type.name, "sequence", node) || isOwn;
  return answer.is === "no" && !isOther
    ? unknown("type.is", `${type.why}, whose \`pop\` may take no default`, type.at)
    : answer;
}

export const removedIfThere = rule({
  id: "python/removed-if-there",
  kind: "idiom",
  title: "Use pop with a default to remove a key that may be missing",
  why: "The key is looked for twice, and another thread can remove it in between.",
  was: [
    python`
      if ${test}:
          del ${dict}[${key}]
    `,
    python`
      if ${test}:
          ${dict}.pop(${key})
    `,
  ],
  where: [asksForKey],
  given: [
    condition("it is a dict, with the `pop` of one", isDict, { unknownIs: "possible" }),
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
      "def f(jars: dict, k):\n    if k in jars:\n        jars.pop(k)  # gone\n    n = k\n",
      "def f(jars: dict, k):\n    jars.pop(k, None)  # gone\n    n = k\n",
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
    holds("def f(jars: list, k):\n    if k in jars:\n        del jars[k]\n", "which is no dict"),
    holds("def f(jars: dict):\n    if take() in jars:\n        del jars[take()]\n", "calls something"),
    rewrites(
      "class Jars(dict):\n    def __delitem__(self, k):\n        log(k)\ndef f(jars: dict, k):\n    if k in jars:\n        del jars[k]\n",
      "class Jars(dict):\n    def __delitem__(self, k):\n        log(k)\ndef f(jars: dict, k):\n    jars.pop(k, None)\n",
      "possible",
    ),
    ignores("def f(jars: dict, k):\n    if k in jars:\n        del jars[k]\n    else:\n        n = k\n"),
    ignores("def f(jars: dict, k, n):\n    if k in jars:\n        del jars[n]\n"),
    ignores("def f(jars: dict, k):\n    if k not in jars:\n        del jars[k]\n"),
    ignores("def f(jars: dict, k):\n    if k in jars:\n        return jars.pop(k)\n"),
  ],
});
