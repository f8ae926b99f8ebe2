import {
  condition,
  cpp,
  declarationOfHole,
  everyUseOf,
  functionAround,
  holes,
  isUsedAfter,
  need,
  no,
  rule,
  shapeOf,
  targetAllows,
  trialsIn,
  unknown,
  use,
  usesOf,
  waysOutWithout,
  yes,
} from "../../../core.js";
import type { Answer, Match, Snippet, SyntaxNode } from "../../../core.js";
import { isInFunction } from "../pointers.js";
import { takesByReference } from "./member-uses.js";
import { harmlessUses, takerOf } from "./pointer-uses.js";
import { canBeMade, canBeOwned, goesAtOnce, goesUnnoticed, statementsBetween } from "./release.js";

const { type, p, derived, empty, args } = holes({
  // What the compiler is to find out is no type to own by.
  type: { kind: "type", text: /^(?!.*\bauto\b)/ },
  p: "name",
  derived: "type",
  empty: { kind: "expression", text: /^(NULL|nullptr|0)$/ },
  args: "arguments",
});

/** How the pointer is declared; `made` where something else than the declaration makes the object. */
const FORMS: readonly {
  readonly was: Snippet;
  readonly is: "same" | "derived" | "bare" | "fixed" | "made";
}[] = [
  { is: "same", was: cpp`${type} *${p} = new ${type}(${args});` },
  { is: "derived", was: cpp`${type} *${p} = new ${derived}(${args});` },
  { is: "bare", was: cpp`${type} *${p} = new ${derived};` },
  { is: "same", was: cpp`auto ${p} = new ${type}(${args});` },
  { is: "same", was: cpp`auto *${p} = new ${type}(${args});` },
  { is: "fixed", was: cpp`${type} *const ${p} = new ${type}(${args});` },
  { is: "made", was: cpp`${type} *${p} = ${empty};` },
  { is: "made", was: cpp`${type} *${p};` },
];
const formOf = ({ alternative }: Match) => FORMS[alternative]!.is;

/** The assignments that make an object for the variable. */
function makings(match: Match): SyntaxNode[] {
  const to = declarationOfHole(match, p);
  return (to ? usesOf(to).references : []).flatMap(({ node }) => {
    const { parent } = node;
    const isMade =
      parent?.is("assignment_expression") === true &&
      node.field === "left" &&
      parent.child("right")?.is("new_expression") === true;
    return isMade ? [parent.parent!] : [];
  });
}

/** The class of the object, which may be derived from the one that the pointer is declared for. */
function madeType(match: Match): string {
  if (match.has(derived)) return match.textOf(derived);
  const made = formOf(match) === "made" ? makings(match)[0]?.firstPart?.child("right") : undefined;
  return made?.child("type")?.text ?? match.textOf(type);
}

/** The one place at which the object is made; undefined where several do, or one in a loop does. */
function madeAt(match: Match): SyntaxNode | undefined {
  if (formOf(match) !== "made") return match.node;
  const [only, ...more] = makings(match);
  const block = match.node.parent;
  const { functions } = match.tree.language;
  // A loop makes several, and a lambda at another time.
  const isRepeated = (above: SyntaxNode): boolean =>
    ["loop", "each"].includes(shapeOf(above)?.is ?? "") || above.is(functions);
  const around = [...(only?.ancestors() ?? [])].filter(
    (above) => block?.holds(above) === true && !above.same(block),
  );
  return more.length > 0 || around.some(isRepeated) ? undefined : only;
}

/** The statements that delete the variable. */
function deletesOf(match: Match): SyntaxNode[] {
  const to = declarationOfHole(match, p);
  return (to ? usesOf(to).references : [])
    .map(({ node }) => node.parent)
    .filter((parent) => parent?.is("delete_expression") === true && !parent.has("["))
    .map((parent) => parent!.parent!)
    .filter((statement) => statement.is("expression_statement"));
}

/** Is the statement a release that the end of the scope does just as well? */
function isLast(match: Match): boolean {
  const to = declarationOfHole(match, p);
  return to !== undefined && goesAtOnce(match.node, to);
}

/** Is nothing put into the variable behind a release of it? */
function followsRelease(match: Match): boolean {
  const statement = match.node.is("expression_statement") ? match.node : match.node.parent;
  const before = statement?.parent?.parts.filter((part) => part.end <= statement.start).at(-1);
  const inner = before?.is("expression_statement") ? before.firstPart : undefined;
  return inner?.is("delete_expression") === true && inner.firstPart?.text === match.textOf(p);
}

/** Is it deleted on every way out that needs no exception? */
function releasedEverywhere(match: Match): Answer {
  const to = declarationOfHole(match, p);
  const name = match.textOf(p);
  if (!to) return unknown("name.not-resolved", `what declares \`${name}\` is not known`);
  const ways = waysOutWithout(madeAt(match)!, deletesOf(match), to);
  if (!ways)
    return no("resource.every-path", `not all ways from \`${name}\` to the end are known`, match.node);
  const open = ways.find(({ by }) => by !== "exception");
  if (!open) return yes("resource.every-path", `\`${name}\` is deleted on every way out`);
  const where = open.by === "return" ? `where \`${open.at!.text.split("\n")[0]}\` leaves` : "at the end";
  return no(
    "resource.every-path",
    `\`${name}\` is deleted on some ways only, and not ${where}`,
    open.at ?? match.node,
  );
}

/** What takes the pointer by reference cannot take what the owner gives out. */
function lentByValue(match: Match): Answer {
  const to = declarationOfHole(match, p);
  let doubt: Answer | undefined;
  for (const { node } of to ? usesOf(to).references : []) {
    const taker = takerOf(node)
      ?.split(/::|\.|->/)
      .at(-1);
    if (taker === undefined) continue;
    const answer = takesByReference(match, taker);
    if (answer.is === "yes") return no(answer.evidence.code, answer.evidence.says, node);
    if (answer.is === "unknown") doubt ??= unknown(answer.evidence.code, answer.evidence.says, node);
  }
  return doubt ?? yes("resource.owner", `nothing takes \`${match.textOf(p)}\` by reference`);
}

/** Can `make_unique` be told the same arguments? It hands them on, which changes what `0`, `NULL` and `{…}` mean. */
function handsOn(match: Match): boolean {
  if (!["same", "fixed"].includes(formOf(match)) || !targetAllows("14", match)) return false;
  if (!canBeMade(match, match.textOf(type))) return false;
  return match.all(args).every((argument) => !/^(0|NULL|\{.*)$/s.test(argument.text));
}

const { rewrites, holds, ignores } = trialsIn("cpp", "11");
const newer = trialsIn("cpp", "14");

export const ownedLocal = rule({
  id: "cpp/owned-local",
  kind: "idiom",
  title: "Use unique_ptr for an object that a function creates",
  why: "What is deleted by hand is lost when something in between throws, or when somebody adds a return.",
  target: "11",
  was: FORMS.map(({ was }) => was),
  where: [
    (match) => isInFunction(match.node),
    (match) => functionAround(match.node) !== undefined,
    (match) => deletesOf(match).length > 0,
    (match) => madeAt(match) !== undefined,
  ],
  given: [
    condition("it is deleted on every way out", releasedEverywhere),
    condition("it is not used after it was deleted", (match) => {
      const to = declarationOfHole(match, p);
      for (const statement of deletesOf(match)) {
        const answer = to
          ? isUsedAfter(to, statement)
          : unknown("name.not-resolved", "what declares it is not known");
        if (answer.is === "yes")
          return no("resource.used-after", `\`${match.textOf(p)}\` is used after it was deleted`, statement);
        if (answer.is === "unknown") return answer;
      }
      return yes("resource.used-after", "it is not used after it was deleted");
    }),
    condition("nothing takes the pointer by reference", lentByValue),
    condition(
      "it is only let go where it goes anyway",
      (match) => {
        const to = declarationOfHole(match, p)!;
        const sooner = deletesOf(match).find((statement) => !goesAtOnce(statement, to));
        return sooner
          ? no("resource.sooner", `\`${match.textOf(p)}\` is \`const\` and cannot be let go here`, sooner)
          : yes("resource.sooner", "it goes at the end of its block");
      },
      { when: (match) => formOf(match) === "fixed" },
    ),
    condition("an owner can delete it", (match) => canBeOwned(match, match.textOf(type))),
    condition("nobody notices that it goes when something in between throws", (match) =>
      goesUnnoticed(match, madeType(match), statementsBetween(match.node, deletesOf(match))),
    ),
  ],
  uses: everyUseOf(p, [
    use(cpp`delete ${p}; ${p} = ${empty};`).becomes(cpp`${p}.reset();`),
    use(cpp`${p} = new ${derived}(${args});`)
      .when((match) =>
        [match.node, match.node.parent].some((one) => one?.is("expression_statement") === true),
      )
      .becomes(cpp`${p}.reset(new ${derived}(${args}));`),
    use(cpp`${p} = ${empty};`)
      .when(followsRelease)
      .stays(),
    use(cpp`delete ${p};`)
      .when(isLast)
      .goes(),
    use(cpp`delete ${p};`).becomes(cpp`${p}.reset();`),
    ...harmlessUses(p, { raw: cpp`${p}.get()`, isTested: true, isRead: true, releasedBy: undefined }),
  ]),
  needs: [need("<memory>")],
  becomes: (match) => {
    const form = formOf(match);
    if (form === "made") return cpp`std::unique_ptr<${type}> ${p};`;
    if (form === "fixed")
      return handsOn(match)
        ? cpp`const auto ${p} = std::make_unique<${type}>(${args});`
        : cpp`const std::unique_ptr<${type}> ${p}(new ${type}(${args}));`;
    if (handsOn(match)) return cpp`auto ${p} = std::make_unique<${type}>(${args});`;
    if (form === "bare") return cpp`std::unique_ptr<${type}> ${p}(new ${derived});`;
    return match.has(derived)
      ? cpp`std::unique_ptr<${type}> ${p}(new ${derived}(${args}));`
      : cpp`std::unique_ptr<${type}> ${p}(new ${type}(${args}));`;
  },
  trials: [
    rewrites(
      `
      struct Queen { void mark(); int age(); };
      void f() {
        Queen* q = new Queen(1); // marked
        q->mark();
        use(*q, q->age());
        delete q;
      }
      `,
      `
      #include <memory>

      struct Queen { void mark(); int age(); };
      void f() {
        std::unique_ptr<Queen> q(new Queen(1)); // marked
        q->mark();
        use(*q, q->age());
      }
      `,
    ),
    rewrites(
      `
      struct Queen { void mark(); };
      void f() {
        auto q = new Queen(1);
        q->mark();
        delete q;
      }
      `,
      `
      #include <memory>

      struct Queen { void mark(); };
      void f() {
        std::unique_ptr<Queen> q(new Queen(1));
        q->mark();
      }
      `,
    ),
    rewrites(
      `
      struct Queen { void mark(); };
      void f() {
        auto* q = new Queen();
        q->mark();
        delete q;
        g();
      }
      `,
      `
      #include <memory>

      struct Queen { void mark(); };
      void f() {
        std::unique_ptr<Queen> q(new Queen());
        q->mark();
        q.reset();
        g();
      }
      `,
    ),
    ignores("struct Queen { void mark(); };\nvoid f() { const auto* q = new Queen(1); delete q; }\n"),
    newer.rewrites(
      `
      struct Queen { void mark(); };
      void f() {
        Queen* const q = new Queen(1);
        q->mark();
        delete q;
      }
      `,
      `
      #include <memory>

      struct Queen { void mark(); };
      void f() {
        const auto q = std::make_unique<Queen>(1);
        q->mark();
      }
      `,
    ),
    rewrites(
      `
      struct Queen { void mark(); };
      void f(int n) {
        Queen* q = nullptr;
        if (n > 1)
          q = new Queen(n);
        if (q)
          q->mark();
        delete q;
      }
      `,
      `
      #include <memory>

      struct Queen { void mark(); };
      void f(int n) {
        std::unique_ptr<Queen> q;
        if (n > 1)
          q.reset(new Queen(n));
        if (q)
          q->mark();
      }
      `,
    ),
    rewrites(
      `
      struct Hive { virtual ~Hive() {} };
      struct Box : Hive { ~Box() { log(); } };
      void f(int n) {
        Hive* h = nullptr;
        h = new Box();
        weigh(*h, n);
        delete h;
      }
      `,
      `
      #include <memory>

      struct Hive { virtual ~Hive() {} };
      struct Box : Hive { ~Box() { log(); } };
      void f(int n) {
        std::unique_ptr<Hive> h;
        h.reset(new Box());
        weigh(*h, n);
      }
      `,
      "likely",
    ),
    holds(
      "struct Queen { void mark(); };\nvoid f() { Queen* const q = new Queen(1); q->mark(); delete q; g(); }\n",
      "cannot be let go here",
    ),
    ignores(
      "struct Queen { void mark(); };\nvoid f(int n) { Queen* q = nullptr; while (n--) { q = new Queen(n); delete q; } }\n",
    ),
    ignores(
      "struct Queen { void mark(); };\nvoid f(Jars& js) { Queen* q = nullptr; for (auto& j : js) { q = new Queen(1); } delete q; }\n",
    ),
    ignores(
      "struct Queen { void mark(); };\nvoid f() { Queen* q = nullptr; auto g = [&] { q = new Queen(1); }; g(); delete q; }\n",
    ),
    ignores(
      "struct Queen { void mark(); };\nvoid f(int n) { Queen* q; if (n) q = new Queen(1); else q = new Queen(2); delete q; }\n",
    ),
    newer.rewrites(
      `
      struct Queen { ~Queen() {} void mark(); };
      void f() {
        Queen *q = new Queen(name, 3);
        q->mark();
        delete q;
      }
      `,
      `
      #include <memory>

      struct Queen { ~Queen() {} void mark(); };
      void f() {
        auto q = std::make_unique<Queen>(name, 3);
        q->mark();
      }
      `,
    ),
    newer.rewrites(
      `
      struct Insect { virtual ~Insect() {} };
      struct Queen : Insect {};
      int use(Insect* i);
      bool f(bool early) {
        Insect* q = new Queen(0);
        if (early) {
          delete q;
          return false;
        }
        use(q);
        if (q != NULL && !q->marked()) log();
        delete q;
        return true;
      }
      `,
      `
      #include <memory>

      struct Insect { virtual ~Insect() {} };
      struct Queen : Insect {};
      int use(Insect* i);
      bool f(bool early) {
        std::unique_ptr<Insect> q(new Queen(0));
        if (early) {
          return false;
        }
        use(q.get());
        if (q != NULL && !q->marked()) log();
        return true;
      }
      `,
    ),
    // The destructor may do something that the next statement sees.
    rewrites(
      `
      struct Queen { static int alive; void mark(); };
      int f() {
        Queen* q = new Queen(1);
        q->mark();
        delete q;
        return Queen::alive;
      }
      `,
      `
      #include <memory>

      struct Queen { static int alive; void mark(); };
      int f() {
        std::unique_ptr<Queen> q(new Queen(1));
        q->mark();
        q.reset();
        return Queen::alive;
      }
      `,
    ),
    // The buffer would go before the sink that writes to it.
    rewrites(
      `
      void f() {
        Sink* s = new Sink(1);
        Buffer buffer;
        s->attach(&buffer);
        delete s;
      }
      `,
      `
      #include <memory>

      void f() {
        std::unique_ptr<Sink> s(new Sink(1));
        Buffer buffer;
        s->attach(&buffer);
        s.reset();
      }
      `,
      "likely",
    ),
    rewrites(
      `
      void f() {
        Queen* q = new Queen(1);
        far::away(q);
        delete q;
        q = NULL;
        log();
      }
      `,
      `
      #include <memory>

      void f() {
        std::unique_ptr<Queen> q(new Queen(1));
        far::away(q.get());
        q.reset();
        log();
      }
      `,
      "likely",
    ),
    holds(
      "Queen* f(bool b) { Queen* q = new Queen(1); if (b) { delete q; return 0; } return q; }\n",
      "on some ways only",
    ),
    holds("void f(bool b) { Queen* q = new Queen(1); if (b) delete q; }\n", "on some ways only"),
    holds("void f() { Queen* q = new Queen(1); kept = q; delete q; }\n", "does not know"),
    holds("void f() { Queen* q = new Queen(1); Queen* r = q; r->mark(); delete q; }\n", "does not know"),
    holds("void f() { Queen* q = new Queen(1); q = new Queen(2); delete q; }\n", "does not know"),
    holds("void f() { Queen* q = new Queen(1); delete q; q->mark(); }\n", "after it was deleted"),
    holds("void f() { Queen* q = new Queen(1); fill(&q); delete q; }\n", "does not know"),
    holds(
      "void take(Queen*& q);\nvoid f() { Queen* q = new Queen(1); take(q); delete q; }\n",
      "by reference",
    ),
    holds("void f() { Queen* q = new Queen(1); std::unique_ptr<Queen> r(q); delete q; }\n", "does not know"),
    holds("void f() { Queen* q = new Queen(1); q[0].mark(); delete q; }\n", "does not know"),
    holds("void f() { Queen* q = new Queen(1); auto g = [q] { q->mark(); }; delete q; }\n", "does not know"),
    rewrites(
      "void f() { Queen* q = new Queen; q->mark(); delete q; }\n",
      "#include <memory>\n\nvoid f() { std::unique_ptr<Queen> q(new Queen); q->mark(); }\n",
      "likely",
    ),
    holds(
      "class Queen { ~Queen(); friend void f(); };\nvoid f() { Queen* q = new Queen(1); q->mark(); delete q; }\n",
      "is not public",
    ),
    ignores("void f() { Queen* q = new Queen[3]; delete[] q; }\n"),
    ignores("void f() { Queen* q = new (buffer) Queen(1); delete q; }\n"),
    ignores("void f() { Queen* q = new Queen(1); keep(q); }\n"),
    ignores("Queen* q = new Queen(1);\nvoid f() { delete q; }\n"),
    trialsIn("cpp", "3").ignores("void f() { Queen* q = new Queen(1); delete q; }\n"),
  ],
});
