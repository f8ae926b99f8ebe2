import {
  choice,
  condition,
  functionAround,
  hasKey,
  holes,
  isNamedLike,
  isOfTrait,
  item,
  no,
  python,
  rule,
  shortened,
  sideEffectFree,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { cheapDefault } from "../family/conditions.js";

const { dict, key, fallback } = holes({
  dict: "expression",
  key: "expression",
  fallback: "expression",
});

/**
 * A class that is a dict by itself may look into itself in the very method that would be called: `get` of a class would
 * then call itself for ever.
 */
export function isOwnMethod(node: SyntaxNode): Answer | undefined {
  if (!/^(self|cls|super\(\))\b/.test(node.text)) return undefined;
  const around = functionAround(node);
  const method = around?.child("name")?.text ?? "";
  if (/^(get|setdefault|__contains__|__getitem__|__missing__)$/.test(method))
    return no("flow.order", `\`${method}\` would call itself`, around);
  return node.text === "self" ? unknown("type.is", "`self` may have a `get` of its own", node) : undefined;
}

const DICT = { what: "dict", methods: ["get", "__getitem__", "__contains__"] };

/** Is it something that is looked up by key, and has the `get` of a dict? */
function isDict(match: Match): Answer {
  const node = match.the(dict);
  const type = typeOf(node);
  const name = shortened(node.text);
  const own = isOwnMethod(node);
  if (own) return own;
  if (!type) return unknown("type.is", `\`${name}\` could be something that has no \`get\``, node);
  if (
    (isNamedLike(type.name, "sequence", node) || /^(set|Set)$/.test(type.name)) &&
    type.declared === undefined
  )
    return no("type.is", `${type.why}, which has no \`get\``, type.at);
  const answer = isOfTrait(node, "map", DICT);
  const isOwn = type.declared !== undefined && type.declared.as !== "import";
  return answer.is === "no" && !isOwn
    ? unknown("type.is", `${type.why}, which may have no \`get\``, type.at)
    : answer;
}

const isNone = (match: Match): boolean => match.textOf(fallback) === "None";
const { rewrites, holds, ignores } = trialsIn("python");

export const lookupOrDefault = rule({
  id: "python/lookup-or-default",
  kind: "idiom",
  title: "Use get with a default to look up",
  why: "The key is looked for twice, and the reader must check that both are the same.",
  was: choice(hasKey(item(dict, key)), item(dict, key), fallback),
  given: [
    condition("it is a dict", isDict, { unknownIs: "possible" }),
    sideEffectFree(dict),
    sideEffectFree(key),
    cheapDefault(fallback),
    condition("reading a key that is not there fails", (match) => {
      if (!match.choice.asked) return yes("value.which-missing", "the key is asked for");
      const node = match.the(dict);
      const type = typeOf(node);
      return type !== undefined && /^(dict|Dict|OrderedDict)$/.test(type.name)
        ? yes("type.is", type.why, type.at)
        : unknown("type.is", `\`${shortened(node.text)}\` could fill itself, so that nothing fails`, node);
    }),
  ],
  becomes: (match) =>
    isNone(match)
      ? python.expression`${dict}.get(${key})`
      : python.expression`${dict}.get(${key}, ${fallback})`,
  trials: [
    rewrites("d = {}\ntry:\n    x = d[k]\nexcept KeyError:\n    x = 0\n", "d = {}\nx = d.get(k, 0)\n"),
    rewrites(
      "def f(d, k):\n    try:\n        return d[k]\n    except KeyError:\n        return None\n",
      "def f(d, k):\n    return d.get(k)\n",
      "possible",
    ),
    ignores(
      "class KeyError(Exception):\n    pass\nd = {}\ntry:\n    x = d[k]\nexcept KeyError:\n    x = 0\n",
    ),
    // What `weigh` or the second look-up throws was caught as well.
    ignores("d = {}\ntry:\n    x = weigh(d[k])\nexcept KeyError:\n    x = 0\n"),
    ignores("d = {}\ntry:\n    x = d[e[k]]\nexcept KeyError:\n    x = 0\n"),
    ignores("d = {}\ntry:\n    x = d[k]\nexcept (KeyError, TypeError):\n    x = 0\n"),
    ignores("d = {}\ntry:\n    x = d[k]\n    y = 1\nexcept KeyError:\n    x = 0\n"),
    ignores("d = {}\ntry:\n    x = d[k]\nexcept KeyError:\n    x = 0\nelse:\n    y = 1\n"),
    rewrites("ages = {}\nage = ages[q] if q in ages else 0\n", "ages = {}\nage = ages.get(q, 0)\n"),
    rewrites("ages = {}\nage = None if q not in ages else ages[q]\n", "ages = {}\nage = ages.get(q)\n"),
    rewrites(
      `
      def f(ages: dict, q):
          if q in ages:
              age = ages[q]  # years
          else:
              age = 0
          return age
      `,
      `
      def f(ages: dict, q):
          # years
          age = ages.get(q, 0)
          return age
      `,
    ),
    rewrites(
      `
      def f(ages, q):
          age = -1
          if q in ages:
              age = ages[q]
          return age
      `,
      `
      def f(ages, q):
          age = ages.get(q, -1)
          return age
      `,
      "possible",
    ),
    rewrites("x = a.b[k] if k in a.b else ''\n", "x = a.b.get(k, '')\n", "possible"),
    holds("ages = {}\nage = ages[q] if q in ages else ask(q)\n", "calls something"),
    holds("ages = {}\nage = ages[next(q)] if next(q) in ages else 0\n", "calls something"),
    holds("def f(ages: list, q):\n    return ages[q] if q in ages else 0\n", "has no `get`"),
    ignores("q = 0\nif q in ages:\n    q = ages[q]\n"),
    holds(
      "class Ages(dict):\n    def get(self, q, default=None):\n        return self[q] if q in self else default\n",
      "would call itself",
    ),
    ignores("age = ages[q] if q in hives else 0\n"),
    ignores("age = ages[q] if p in ages else 0\n"),
    ignores("age = ages[q] if q in ages and q else 0\n"),
    ignores("if q in ages:\n    age = ages[q]\n"),
    ignores("if q in ages:\n    age = ages[q]\n    n += 1\nelse:\n    age = 0\n"),
  ],
});
