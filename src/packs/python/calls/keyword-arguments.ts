import { z } from "zod";
import { condition, copy, holes, ofKind, options, originOf, referencesAt, rule } from "../../../core.js";
import { text, trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match, Rule, Segment, SyntaxNode } from "../../../core.js";

const { call } = holes({ call: { kind: "expression", node: "call" } });

/** What a function calls its parameters, and what says so. */
interface Signature {
  readonly names: readonly string[];
  readonly at: SyntaxNode;
  readonly answer: Answer;
}

/** Values that say nothing of what they are for. */
const BARE = ["true", "false", "none", "integer", "float"];

/** The parameters of a function that the file defines, as far as they have names for callers. */
function ownSignature(callee: SyntaxNode): Signature | undefined {
  const to = callee.is("identifier") ? referencesAt(callee).find((one) => one.to)?.to : undefined;
  const at = to?.at.length === 1 ? to.at[0]! : undefined;
  const fn = at?.parent;
  // Another value of the name is another declaration.
  if (!to || !at || !fn?.is("function_definition") || !fn.child("name")?.same(at)) return undefined;
  const names: string[] = [];
  for (const part of fn.child("parameters")!.parts) {
    if (part.is(["list_splat_pattern", "dictionary_splat_pattern", "keyword_separator"])) break;
    if (part.is("positional_separator")) names.fill("");
    else names.push((part.child("name") ?? part.firstPart ?? part).text);
  }
  const decorated = fn.parent?.is("decorated_definition");
  const name = callee.text;
  const answer = decorated
    ? unknown("name.other-uses", `what the decorator of \`${name}\` calls the parameters is not known`, fn)
    : yes("name.other-uses", `\`${name}\` is defined with these parameters`, at);
  return { names, at, answer };
}

function signatureOf(node: SyntaxNode, { functions, own }: Settings): Signature | undefined {
  const callee = node.child("function")!;
  const from = originOf(callee);
  const key = from && `${from.module}.${from.name ?? ""}`;
  const names = key === undefined || !Object.hasOwn(functions, key) ? undefined : functions[key];
  if (names)
    return { names, at: callee, answer: yes("name.library", `\`${callee.text}\` is \`${key}\``, callee) };
  return own ? ownSignature(callee) : undefined;
}

/** The arguments that get a name: from the first that says nothing of itself, or all behind the first. */
function positional(node: SyntaxNode, signature: Signature, set: Settings): SyntaxNode[] {
  const list = node.child("arguments");
  const given = list?.is("argument_list") ? list.parts : [];
  const end = given.findIndex((one) => one.is(["keyword_argument", "dictionary_splat"]));
  const plain = end < 0 ? given : given.slice(0, end);
  if (plain.some((one) => one.is("list_splat")) || plain.length > signature.names.length) return [];
  const from = plain.findIndex((one, i) => i >= set.keep && (set.which === "all" || one.is(BARE)));
  const named = from < 0 ? [] : plain.slice(from);
  return named.every((one) => signature.names[plain.indexOf(one)] !== "") ? named : [];
}

const settings = z.object({
  functions: z
    .record(z.string(), z.array(z.string()))
    .default({})
    .describe("Functions of libraries by their full names, each with its parameters in their order."),
  own: z.boolean().default(true).describe("Whether functions that the file defines count as well."),
  which: z
    .enum(["bare", "all"])
    .default("bare")
    .describe("Which arguments get a name: those from the first number, True, False or None on, or all."),
  keep: z.number().int().min(0).default(1).describe("How many arguments at the start stay without a name."),
});
type Settings = z.output<typeof settings>;

const make = (set: Settings): Rule => {
  const found = (node: SyntaxNode): { list: SyntaxNode[]; signature: Signature } | undefined => {
    const signature = signatureOf(node, set);
    const list = signature ? positional(node, signature, set) : [];
    return signature && list.length > 0 ? { list, signature } : undefined;
  };
  return rule({
    id: "python/keyword-arguments",
    kind: "idiom",
    title: "Name the arguments of a call that do not speak for themselves",
    why: "The reader must look up what a number, True or None in the third place is for.",
    taste: true,
    was: ofKind(call, { when: (node) => found(node) !== undefined }),
    given: [condition("the parameters are known", (match) => found(match.node)!.signature.answer)],
    becomes: (match: Match): Segment[] => {
      const { list, signature } = found(match.node)!;
      const all = match.node.child("arguments")!.parts;
      const edits = list.map((one) => ({
        start: one.start,
        end: one.start,
        text: `${signature.names[all.findIndex((other) => other.same(one))]}=`,
      }));
      return [copy(match.node.start, match.node.end, edits), text("")];
    },
    options: options(settings, make),
    trials,
  });
};

const { rewrites, ignores } = trialsIn("python");
const table = trialsIn("python", undefined, {
  functions: { "combs.merge": ["left", "right", "how", "on"] },
  which: "all",
  keep: 2,
});

const trials = [
  rewrites(
    "def weigh(hive, dry=False, times=1):\n    pass\nweigh(h, True, 3)\n",
    "def weigh(hive, dry=False, times=1):\n    pass\nweigh(h, dry=True, times=3)\n",
  ),
  rewrites(
    "def weigh(hive, place, dry, *more):\n    pass\nweigh(h, p, None)  # dry\n",
    "def weigh(hive, place, dry, *more):\n    pass\nweigh(h, p, dry=None)  # dry\n",
  ),
  rewrites(
    "@a\ndef f(x, y: int = 2):\n    pass\nf(1, 2)\n",
    "@a\ndef f(x, y: int = 2):\n    pass\nf(1, y=2)\n",
    "likely",
  ),
  table.rewrites(
    "import combs\nc = combs.merge(a, b, 'left', key)\n",
    "import combs\nc = combs.merge(a, b, how='left', on=key)\n",
  ),
  table.rewrites(
    "from combs import merge as m\nc = m(a, b, k, on=key)\n",
    "from combs import merge as m\nc = m(a, b, how=k, on=key)\n",
  ),
  ignores("def f(x, y):\n    pass\nf = g(f)\nf(1, 2)\n"),
  ignores("def f(x, y, /):\n    pass\nf(1, 2)\n"),
  ignores("def f(x, *y):\n    pass\nf(1, 2)\n"),
  ignores("def f(x, y):\n    pass\nf(*a, 2)\nf(a, b)\nf(1)\nf(a, y=2)\n"),
  ignores("class A:\n    def f(self, x, y):\n        pass\nA().f(1, 2)\nf(1, 2)\n"),
  table.ignores("from other import merge\nc = merge(a, b, 'left', key)\n"),
];

export const keywordArguments = make(settings.parse({}));
