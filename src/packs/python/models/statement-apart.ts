import { z } from "zod";
import {
  condition,
  copy,
  holes,
  indentUnit,
  no,
  ofKind,
  options,
  originOf,
  referencesAt,
  referencesOf,
  rule,
  text,
  trialsIn,
  typeOf,
  unknown,
  valuesGiven,
  yes,
} from "../../../core.js";
import type { Answer, Edit, Match, Rule, Segment, SyntaxNode } from "../../../core.js";
import { argumentsOf } from "./columns.js";
import { needFor } from "./mapper.js";

const settings = z.object({
  select: z.string().default("").describe("What makes a statement in the new version: `mapper.select`."),
  query: z
    .string()
    .default("query")
    .describe("The method of a session that begins a query in the old version."),
  get: z
    .string()
    .default("get")
    .describe("The method that fetches by key, of a query before and of a session after."),
  sessions: z
    .array(z.string())
    .default([])
    .describe("What makes a session, or a class of sessions: `mapper.Session`."),
  steps: z
    .record(z.string(), z.string())
    .default({})
    .describe("The methods that a query goes on with, and what a statement calls them."),
  ends: z
    .record(z.string(), z.string())
    .default({})
    .describe(
      'The methods that run a query, and what a session is asked instead: `{ all: "scalars({}).all()" }`, with `{}` for the statement.',
    ),
});
type Settings = z.output<typeof settings>;

const { call } = holes({ call: { kind: "expression", node: "call" } });

/** A query from the session to the call that runs it. */
interface Query {
  readonly session: SyntaxNode;
  readonly what: readonly SyntaxNode[];
  /** The calls between the first and the last, in their order. */
  readonly steps: readonly SyntaxNode[];
  readonly end: SyntaxNode;
}

const methodOf = (node: SyntaxNode | undefined): string | undefined =>
  node?.is("call") && node.child("function")?.is("attribute")
    ? node.child("function")!.child("attribute")!.text
    : undefined;

const objectOf = (node: SyntaxNode): SyntaxNode => node.child("function")!.child("object")!;

function queryAt(end: SyntaxNode, set: Settings): Query | undefined {
  const method = methodOf(end);
  if (set.select === "" || method === undefined) return undefined;
  if (!Object.hasOwn(set.ends, method) && method !== set.get) return undefined;
  const steps: SyntaxNode[] = [];
  let at = bare(objectOf(end));
  for (let name = methodOf(at); name !== set.query; name = methodOf(at)) {
    if (name === undefined) return undefined;
    steps.unshift(at);
    at = bare(objectOf(at));
  }
  return { session: objectOf(at), what: argumentsOf(at), steps, end };
}

const bare = (node: SyntaxNode): SyntaxNode =>
  node.is("parenthesized_expression") && node.parts.length === 1 ? bare(node.firstPart!) : node;

/** Why a query cannot be said as a statement. */
function refusalOf({ what, steps, end }: Query, set: Settings): { at: SyntaxNode; why: string } | undefined {
  const [first, ...more] = what;
  if (!first || more.length > 0)
    return { at: end, why: "the query is for more than one thing, and gives rows" };
  if (!first.is(["identifier", "attribute"]))
    return { at: first, why: "what the query is for is worked out here" };
  const name = first.text.split(".").at(-1)!;
  if (!/^\p{Lu}/u.test(name))
    return { at: first, why: `\`${first.text}\` may be a column, whose query gives rows` };
  const strange = steps.find((step) => !Object.hasOwn(set.steps, methodOf(step)!));
  if (strange) return { at: strange, why: `the config does not say what \`${methodOf(strange)!}\` becomes` };
  const given = argumentsOf(end);
  if (methodOf(end) === set.get) {
    if (steps.length > 0) return { at: end, why: "what is fetched by its key is restricted before" };
    return given.length === 1 && !given[0]!.is(["keyword_argument", "list_splat", "dictionary_splat"])
      ? undefined
      : { at: end, why: "it is not fetched by one key" };
  }
  return given.length > 0 ? { at: given[0]!, why: `\`${methodOf(end)!}\` is given an argument` } : undefined;
}

/** What all calls of a function in its file give for a parameter; undefined where it is used otherwise, or never called. */
function givenFor(parameter: SyntaxNode): SyntaxNode[] | undefined {
  const fn = parameter.closest(["function_definition"]);
  const list = fn?.child("parameters");
  const at = list?.parts.findIndex((part) => part.same(parameter)) ?? -1;
  const to = fn && referencesAt(fn.child("name")!).find((one) => one.to)?.to;
  if (!to || at < 0 || list!.parts.slice(0, at + 1).some((part) => !part.is("identifier"))) return undefined;
  const uses = referencesOf(to).filter(({ node }) => !node.same(fn.child("name")));
  const given = uses.map(({ node }) =>
    node.parent?.is("call") && node.field === "function" ? argumentsOf(node.parent)[at] : undefined,
  );
  return given.length > 0 && given.every((one) => one?.is("identifier") === true)
    ? given.filter((one) => one !== undefined)
    : undefined;
}

/** Is the object a session? What its factory is called, the config says. */
function isSession(session: SyntaxNode, set: Settings, depth = 0): Answer {
  const { sessions } = set;
  const code = "type.is";
  const name = `\`${session.text}\``;
  const isMaker = (node: SyntaxNode, deep = 0): boolean => {
    const callee = node.is("call") ? node.child("function") : undefined;
    if (!callee || deep > 3) return false;
    const origin = originOf(callee);
    if (origin && sessions.includes(`${origin.module}.${origin.name ?? ""}`)) return true;
    if (callee.is("call")) return isMaker(callee, deep + 1);
    const to = callee.is("identifier") ? referencesAt(callee).find((one) => one.to)?.to : undefined;
    const made = (to && valuesGiven(to)) ?? [];
    return made.length > 0 && made.every((value) => isMaker(value, deep + 1));
  };
  const type = typeOf(session);
  const full = type && `${type.module ?? ""}.${type.name}`;
  if (full !== undefined && sessions.includes(full)) return yes(code, type!.why, type!.at);
  const to = session.is("identifier") ? referencesAt(session).find((one) => one.to)?.to : undefined;
  const given = to?.as === "parameter" && depth < 3 ? givenFor(to.at[0]!) : undefined;
  if (given?.every((one) => isSession(one, set, depth + 1).is === "yes"))
    return yes(code, `each call in this file gives a session for ${name}`, given[0]);
  const values = to && valuesGiven(to);
  const [made] = values ?? [];
  if (made && values!.every((value) => isMaker(value)))
    return yes(code, `${name} is what \`${made.text.split("\n")[0]!}\` makes`, made);
  if (made)
    return unknown(code, `${name} is \`${made.text.split("\n")[0]!}\`, which may be no session`, made);
  return unknown(code, `nothing says that ${name} is a session`, session);
}

/** The code of the new version: a statement, and the session that is asked for it. */
function asked({ session, what, steps, end }: Query, set: Settings, match: Match): Segment[] {
  const own = copy(session.start, session.end);
  const model = copy(what[0]!.start, what[0]!.end);
  const method = methodOf(end)!;
  if (method === set.get) {
    const [key] = argumentsOf(end);
    return [own, text(`.${set.get}(`), model, text(", "), copy(key!.start, key!.end), text(")")];
  }
  const [ahead = "", behind = ""] = set.ends[method]!.split("{}");
  const select = `${match.nameOf(needFor(set.select))}(`;
  const from = objectOf(steps[0] ?? end).end;
  const edits = steps.map((step): Edit => {
    const name = step.child("function")!.child("attribute")!;
    return { start: name.start, end: name.end, text: set.steps[name.text]! };
  });
  const { tree } = end;
  const comments = tree.commentsIn(objectOf(end).end, end.end);
  const to = comments.length > 0 ? tree.ends[comments.at(-1)!]! : objectOf(end).end;
  if (!tree.text.slice(from, to).includes("\n"))
    return [own, text(`.${ahead}${select}`), model, text(")"), copy(from, to, edits), text(behind)];
  const line = tree.indentAt(session.start);
  const deeper = `${line}${indentUnit(tree, line)}`;
  return [
    own,
    text(`.${ahead}\n${deeper}${select}`),
    model,
    text(")"),
    copy(
      from,
      to,
      [...edits, ...deeperLines(end, from, to)].sort((a, b) => a.start - b.start),
    ),
    text(`\n${line}${behind}`),
  ];
}

/** Moves the lines of a range one step in; none where one of them may begin inside a text. */
function deeperLines({ tree }: SyntaxNode, from: number, to: number): Edit[] {
  const code = tree.text.slice(from, to);
  if (/"""|'''|\\\n/.test(code)) return [];
  const unit = indentUnit(tree, tree.indentAt(from));
  return [...code.matchAll(/\n(?=[^\n])/g)].map(({ index }) => {
    const start = from + index + 1;
    return { start, end: start, text: unit };
  });
}

const make = (set: Settings): Rule => {
  const queryIn = (match: Match): Query => queryAt(match.the(call), set)!;
  return rule({
    id: "python/statement-apart",
    kind: "deprecated",
    title: "Make a statement, and ask the session for it",
    why: "A query that belongs to a session cannot be made, kept and tried without one.",
    was: ofKind(call, { when: (node) => queryAt(node, set) !== undefined }),
    mentions: [`.${set.query}`],
    options: options(settings, make),
    given: [
      condition("the query can be said as a statement", (match) => {
        const refusal = refusalOf(queryIn(match), set);
        return refusal
          ? no("form.fits", refusal.why, refusal.at)
          : yes("form.fits", "the config says what each of its calls becomes");
      }),
      condition("it is a session", (match) => isSession(queryIn(match).session, set), {
        unknownIs: "possible",
      }),
      condition("the new version takes it so", (match) =>
        unknown("name.library", "what a statement gives, the config alone says", match.the(call)),
      ),
    ],
    becomes: (match) => asked(queryIn(match), set, match),
    trials,
  });
};

const { rewrites, holds, ignores } = trialsIn("python", undefined, {
  select: "mapper.select",
  sessions: ["mapper.Session", "mapper.make_sessions"],
  steps: { filter: "where", order_by: "order_by" },
  ends: { all: "scalars({}).all()", first: "scalars({}).first()" },
});

const trials = [
  rewrites(
    `
    from mapper import Session

    def report(path):
        session = Session(path)
        for hive in session.query(Hive).filter(Hive.kilos > 20).order_by(Hive.name).all():
            print(hive, session.query(Keeper).get(hive.keeper_id))
        return session.query(Hive).first()
    `,
    `
    from mapper import select, Session

    def report(path):
        session = Session(path)
        for hive in session.scalars(select(Hive).where(Hive.kilos > 20).order_by(Hive.name)).all():
            print(hive, session.get(Keeper, hive.keeper_id))
        return session.scalars(select(Hive)).first()
    `,
    "likely",
  ),
  // A factory of a class of sessions; a chain over several lines.
  rewrites(
    `
    import mapper
    Sessions = mapper.make_sessions("hives.db")
    session = Sessions()
    hives = (
        session.query(Hive)
        .filter(Hive.kilos > 20)  # heavy ones
        .all()
    )
    `,
    `
    import mapper
    Sessions = mapper.make_sessions("hives.db")
    session = Sessions()
    hives = (
        session.scalars(
            mapper.select(Hive)
            .where(Hive.kilos > 20)  # heavy ones
        ).all()
    )
    `,
    "likely",
  ),
  rewrites(
    "def f(s):\n    return s.query(Hive).all()\n",
    "from mapper import select\n\ndef f(s):\n    return s.scalars(select(Hive)).all()\n",
    "possible",
  ),
  rewrites(
    "from mapper import select as choose\ndef f(s):\n    return s.query(Hive).all()\n",
    "from mapper import select as choose\ndef f(s):\n    return s.scalars(choose(Hive)).all()\n",
    "possible",
  ),
  // All calls of the function give it one.
  rewrites(
    "from mapper import Session\n\ndef f(s):\n    return s.query(Hive).all()\n\nown = Session()\nf(own)\n",
    "from mapper import select, Session\n\ndef f(s):\n    return s.scalars(select(Hive)).all()\n\nown = Session()\nf(own)\n",
    "likely",
  ),
  holds("def f(s):\n    return s.query(Hive, Keeper).all()\n", "more than one thing"),
  holds("def f(s):\n    return s.query(name).all()\n", "may be a column"),
  holds("def f(s):\n    return s.query(Hive.name).all()\n", "may be a column"),
  holds("def f(s):\n    return s.query(Hive).join(Keeper).all()\n", "does not say what `join`"),
  holds("def f(s):\n    return s.query(Hive).filter(x).get(1)\n", "restricted before"),
  ignores("def f(s):\n    return s.query(Hive)\n"),
  ignores("def f(s):\n    return s.all(Hive)\n"),
  trialsIn("python").ignores("def f(s):\n    return s.query(Hive).all()\n"),
];

export const statementApart = make(settings.parse({}));
