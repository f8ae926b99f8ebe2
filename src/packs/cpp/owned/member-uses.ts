import {
  escaped,
  condition,
  copy,
  cpp,
  functionAround,
  holes,
  no,
  text,
  unknown,
  use,
  yes,
} from "../../../core.js";
import type {
  Answer,
  Condition,
  Coverage,
  EveryUse,
  Hole,
  Match,
  Snippet,
  SyntaxNode,
  UseClause,
} from "../../../core.js";
import {
  goesInOrder,
  isAtTheEnd,
  isDestructor,
  isNotCopied,
  onlyGivesBack,
  releasedByDestructor,
  type Giving,
} from "./member-facts.js";
import { harmlessUses, takerOf, usesThroughObjects } from "./pointer-uses.js";

const { empty, value } = holes({
  empty: { kind: "expression", text: /^(NULL|nullptr|0)$/ },
  value: "expression",
});

/** Code for what is done to a member, before and after it became an owner. Each is given the member as it is written. */
export interface MemberCode {
  readonly giving: Giving;
  /** Gives it back by hand, without a semicolon. */
  release(member: Snippet): Snippet;
  raw(member: Snippet): Snippet;
  /** Gives it back now. */
  reset(member: Snippet): Snippet | undefined;
  /** Puts another one in its place; undefined where the owner cannot be told. */
  put(member: Snippet, value: Hole): Snippet | undefined;
  /** What the owner is made of where the member was made of nothing, and a further argument that it always has. */
  readonly empty: string;
  readonly deleter?: string | undefined;
  /** Where its address is given: to be filled, or to be read. */
  readonly fill?: (member: Snippet) => Snippet;
  readonly read?: (member: Snippet) => Snippet;
  readonly isFill?: (match: Match) => boolean;
  readonly isTested: boolean;
  /** The function or method that gives it back. */
  readonly releasedBy?: string | undefined;
}

/** Clauses for all that may be done with a member that is owned. */
export function memberClauses(p: Hole, code: MemberCode): UseClause[] {
  const { giving } = code;
  const name = (match: Match): string => match.textOf(p);
  const givesBackIn = (body: SyntaxNode, member: string): boolean =>
    body.mentions(member).some((leaf) => isAtTheEnd(leaf, member, giving));
  const isLast = (match: Match): boolean => givesBackIn(match.node, name(match));
  const follows = (match: Match): boolean => {
    const statement = match.node.closest(["expression_statement"]);
    const before = statement?.parent?.parts.filter((part) => part.end <= statement.start).at(-1);
    const leaf = before && [...before.descendants()].find((node) => node.isLeaf && node.text === name(match));
    return leaf !== undefined && giving.statement(leaf)?.same(before) === true;
  };
  const isPlain = (match: Match): boolean => match.the(value).is("identifier");
  const { isTested, releasedBy } = code;
  const owner = { raw: code.raw(cpp`${p}`), isTested, isRead: true, releasedBy };
  return [
    use(cpp`${p}`)
      .in("field_initializer")
      .when((match) => isInitialized(match) && match.node.firstPart?.same(match.the(p)) === true)
      .becomes(({ node }) => {
        const list = node.parts[1]!;
        const { empty: nothing, deleter } = code;
        if (isEmpty(list.text.slice(1, -1).trim())) {
          const args = [nothing, deleter].filter((arg) => arg !== undefined && arg !== "");
          return [copy(node.start, list.start), text(`(${args.join(", ")})`)];
        }
        return deleter === undefined
          ? [copy(node.start, node.end)]
          : [copy(node.start, list.end - 1), text(`, ${deleter})`)];
      }),
    // The destructor that does nothing else.
    use(cpp`${p}`)
      .around()
      .in("function_definition")
      .when((match) => isAllOfDestructor(match, name(match), giving))
      .becomes(({ node }) => [copy(node.start, node.child("body")!.start), text("= default;")]),
    ...[cpp`${p}`, cpp`this->${p}`].flatMap((member) => {
      const release = code.release(member);
      const reset = code.reset(member);
      const put = code.put(member, value);
      const resets = reset ? [cpp`${reset};`] : [];
      return [
        use(cpp`${release}; ${member} = ${empty};`)
          .when(isLast)
          .goes(),
        use(cpp`${member} = ${empty};`)
          .when(follows)
          .stays(),
        ...resets.map((now) => use(cpp`${release}; ${member} = ${empty};`).becomes(now)),
        ...(put
          ? [
              use(cpp`${release}; ${member} = ${value};`)
                .when(isPlain)
                .becomes(cpp`${put};`),
              use(cpp`${member} = ${value};`)
                .when((match) => follows(match) && isPlain(match))
                .stays(),
            ]
          : []),
        ...[cpp`${member}`, cpp`${member} != NULL`, cpp`${member} != nullptr`, cpp`${member} != 0`].flatMap(
          (test) => [
            use(cpp`if (${test}) { ${release}; }`)
              .when(isLast)
              .goes(),
            ...resets.map((now) => use(cpp`if (${test}) { ${release}; }`).becomes(now)),
            use(cpp`if (${test}) { ${release}; ${member} = ${empty}; }`)
              .when(isLast)
              .goes(),
            ...resets.map((now) => use(cpp`if (${test}) { ${release}; ${member} = ${empty}; }`).becomes(now)),
          ],
        ),
        use(cpp`${release};`)
          .when(isLast)
          .goes(),
        ...resets.map((now) => use(cpp`${release};`).becomes(now)),
        ...(put
          ? [
              use(cpp`${member} = ${value};`)
                .when((match) => makesAnew(match.the(value)) || follows(match))
                .becomes(cpp`${put};`),
            ]
          : []),
        use(cpp`return ${member};`).becomes(cpp`return ${code.raw(member)};`),
        ...(code.fill
          ? [
              use(cpp`&${member}`)
                .when(code.isFill!)
                .becomes(code.fill(member)),
            ]
          : []),
        ...(code.read
          ? [
              use(cpp`&${member}`)
                .when((match) => !code.isFill!(match))
                .becomes(code.read(member)),
            ]
          : []),
      ];
    }),
    use(cpp`${p}`)
      .when(
        ({ node }) =>
          node.field === "value" && node.parent?.child("declarator")?.is("pointer_declarator") === true,
      )
      .becomes(code.raw(cpp`${p}`)),
    ...harmlessUses(p, owner),
    ...(code.isTested ? usesThroughObjects(p, owner) : []),
  ];
}

const isInitialized = ({ node }: Match): boolean =>
  node.is("field_initializer") && node.parts[1]?.is("argument_list") === true;
const isEmpty = (args: string): boolean => /^(NULL|0|nullptr)?$/.test(args);
/** `new Queen`, or a call, whose result nobody else has yet. */
const makesAnew = (value: SyntaxNode): boolean => value.is(["new_expression", "call_expression"]);

/** Does a destructor give the member back and do nothing else, without a comment that would be lost with it? */
function isAllOfDestructor({ node }: Match, name: string, giving: Giving): boolean {
  const body = node.child("body");
  if (!body || !isDestructor(node)) return false;
  const hasComments = body.children.some((child) => child.is("comment"));
  return !hasComments && body.mentions(name).length > 0 && onlyGivesBack(body, name, giving);
}

/** What must hold of a member that is to be owned, whatever it is. */
export function memberConditions(
  p: Hole,
  usesOf: (match: Match) => EveryUse,
  givingOf: (match: Match) => Giving,
): Condition[] {
  /** Asks something of all uses together. */
  const ofUses = (match: Match, ask: (name: string, coverage: Coverage) => Answer): Answer => {
    const coverage = usesOf(match).coverage(match);
    if (!coverage)
      return unknown("name.not-resolved", `what declares \`${match.textOf(p)}\` is not known`, match.node);
    return coverage.uncovered ?? ask(match.textOf(p), coverage);
  };
  return [
    condition("the destructor gives it back", (match) =>
      ofUses(match, (name, coverage) => releasedByDestructor(name, coverage, givingOf(match))),
    ),
    condition("members go in the order in which they went", (match) =>
      ofUses(match, (name, coverage) => goesInOrder(match, name, coverage, givingOf(match))),
    ),
    condition("the class is not copied", isNotCopied),
    condition("nothing is lost when it is made anew", (match) =>
      ofUses(match, (name, coverage) => notLost(name, coverage, givingOf(match))),
    ),
    condition("nothing takes the pointer by reference", (match) =>
      ofUses(match, (name, { places }) =>
        lentByValue(
          match,
          name,
          places.map(({ node }) => node),
        ),
      ),
    ),
  ];
}

/** Is something put in the place of what was there, without a release before it and outside of constructors? */
function notLost(name: string, { covered, places }: Coverage, giving: Giving): Answer {
  const lost = covered.find(({ node, found }) => {
    const code = found.tree.text.slice(found.start, found.end);
    const isPut = /^(this->)?\w+\s*=[^=]/.test(code);
    const around = functionAround(node);
    if (!isPut || !around || isConstructor(around)) return false;
    return !places.some(
      (other) => other.node.tree === node.tree && giving.statement(other.node) && around.holds(other.node),
    );
  });
  return lost
    ? unknown(
        "resource.sooner",
        `\`${name}\` is made anew here; what was there before was lost, and is given back now`,
      )
    : yes("resource.sooner", `whatever \`${name}\` held is given back before it holds something else`);
}

function isConstructor(around: SyntaxNode): boolean {
  const name =
    around
      .child("declarator")
      ?.text.replace(/\([\s\S]*$/, "")
      .trim() ?? "";
  const [last, before] = name.split("::").reverse();
  return (
    around.child("type") === undefined && !name.includes("~") && (before === undefined || before === last)
  );
}

/** What takes a pointer by reference cannot take what an owner gives out. Asked of the uses of a member. */
function lentByValue(match: Match, name: string, uses: readonly SyntaxNode[]): Answer {
  let doubt: Answer | undefined;
  for (const node of uses) {
    const taker = takerOf(node.parent?.is("field_expression") ? node.parent : node)
      ?.split(/::|\.|->/)
      .at(-1);
    if (taker === undefined || taker === name) continue;
    const answer = takesByReference(match, taker);
    if (answer.is === "yes") return no(answer.evidence.code, answer.evidence.says);
    if (answer.is === "unknown") doubt ??= answer;
  }
  return doubt ?? yes("resource.owner", `nothing takes \`${name}\` by reference`);
}

/** Functions of the C library, and its macro for what must hold. */
const C_LIBRARY =
  /^(f(puts|gets|printf|scanf|seek|tell|eof|error|flush|getc|putc|read|write|close)|rewind|setv?buf|getc|putc|ungetc|fileno|clearerr|pclose|(read|rewind|close)dir|v?fprintf|mem(cpy|set|cmp)|strlen|assert)$/;

const withoutComments = (code: string): string => code.replace(/\/\*[^]*?\*\/|\/\/.*/g, " ");

/** Does a function of the project take a pointer by reference? Unknown where the project's sources do not declare it. */
export function takesByReference(match: Match, taker: string): Answer {
  if (C_LIBRARY.test(taker)) return no("resource.owner", `\`${taker}\` takes pointers by value`);
  const texts = [match.tree.text, ...[...(match.around.files?.naming(taker) ?? [])].map((file) => file.text)];
  const form = new RegExp(`[\\w>*&]\\s+[*&]?(?:\\w+::)*${escaped(taker)}\\s*\\(([^;{]*)\\)`, "g");
  const declared = texts.flatMap((code) => [...withoutComments(code).matchAll(form)]);
  const parameters = declared.flatMap(([, list]) => list!.split(","));
  if (parameters.some((one) => /\*\s*&/.test(one)))
    return yes("resource.owner", `\`${taker}\` takes a pointer by reference`);
  // The name of a type may stand for a pointer, and a parameter of a template for anything.
  const open = parameters.find((one) => one.includes("&") && !/\bconst\b/.test(one));
  if (open !== undefined)
    return unknown("resource.owner", `\`${open.trim()}\` of \`${taker}\` may be a reference to the pointer`);
  return declared.length > 0
    ? no("resource.owner", `\`${taker}\` takes pointers by value`)
    : unknown("resource.owner", `what \`${taker}\` does with the pointer is not in the project's sources`);
}
