import {
  condition,
  copy,
  cpp,
  everyUseOf,
  functionAround,
  holes,
  need,
  no,
  rule,
  text,
  trialsIn,
  unknown,
  use,
  yes,
} from "../../../index.js";
import type { Answer, Coverage, Match } from "../../../index.js";
import {
  classOf,
  deleteAround,
  goesInOrder,
  isAtTheEnd,
  isComplete,
  isDestructor,
  isNotCopied,
  releasedByDestructor,
} from "./member-facts.js";
import { harmlessUses, takerOf, usesThroughObjects } from "./pointer-uses.js";

const { type, p, empty, value, made } = holes({
  type: "type",
  p: "name",
  empty: { kind: "expression", text: /^(NULL|nullptr|0)$/ },
  value: "expression",
  made: "type",
});
const { args } = holes({ args: "arguments" });

/** Is a release of the same member what stands right before? */
function followsRelease(match: Match): boolean {
  const statement = match.node.closest(["expression_statement"]);
  const before = statement?.parent?.parts.filter((part) => part.end <= statement.start).at(-1);
  const inner = before?.is("expression_statement") ? before.parts[0] : undefined;
  return (
    inner?.is("delete_expression") === true && inner.parts[0]?.text.replace(/^this->/, "") === match.textOf(p)
  );
}

/** `p(new Queen)`, `p(given)`, `p()`: an owner is made of the same. */
const isFilledThere = (match: Match): boolean => isInitialized(match) && !isEmptyThere(match);
const isInitialized = ({ node }: Match): boolean =>
  node.is("field_initializer") && node.parts[1]?.is("argument_list") === true;
/** `p(0)`, which an owner would not know for a pointer. */
const isEmptyThere = (match: Match): boolean =>
  isInitialized(match) && /^\(\s*(NULL|0)\s*\)$/.test(match.node.parts[1]?.text ?? "");
const isOwnName = (match: Match): boolean => match.node.parts[0]?.same(match.the(p)) === true;
const isLastInDestructor = (match: Match): boolean => {
  const name = [...match.node.descendants()].find((node) => node.isLeaf && node.text === match.textOf(p));
  return name !== undefined && isAtTheEnd(name, match.textOf(p));
};

/** Is the release all that the destructor does? */
function isAllOfDestructor(match: Match): boolean {
  const body = match.node.child("body");
  const hasComments = body?.children.some((child) => child.is("comment")) ?? true;
  return (
    isDestructor(match.node) &&
    body?.parts.length === 1 &&
    !hasComments &&
    isAtTheEnd(match.the(p), match.textOf(p))
  );
}

const clauses = [
  use(cpp`${p}`)
    .in("field_initializer")
    .when((match) => isOwnName(match) && isFilledThere(match))
    .stays(),
  use(cpp`${p}`)
    .in("field_initializer")
    .when((match) => isOwnName(match) && isEmptyThere(match))
    .becomes((match) => [copy(match.node.start, match.node.parts[1]!.start), text("(nullptr)")]),
  // The destructor that does nothing else.
  use(cpp`${p}`)
    .around()
    .in("function_definition")
    .when(isAllOfDestructor)
    .becomes(({ node }) => [copy(node.start, node.child("body")!.start), text("= default;")]),
  ...[cpp`${p}`, cpp`this->${p}`].flatMap((name) => [
    use(cpp`delete ${name}; ${name} = ${empty};`)
      .when(isLastInDestructor)
      .goes(),
    use(cpp`${name} = ${empty};`)
      .when(followsRelease)
      .stays(),
    use(cpp`delete ${name}; ${name} = ${empty};`).becomes(cpp`${name}.reset();`),
    use(cpp`delete ${name}; ${name} = ${value};`)
      .when((match) => match.the(value).is("identifier"))
      .becomes(cpp`${name}.reset(${value});`),
    use(cpp`${name} = ${value};`)
      .when((match) => followsRelease(match) && match.the(value).is("identifier"))
      .stays(),
    use(cpp`if (${name}) { delete ${name}; }`)
      .when(isLastInDestructor)
      .goes(),
    use(cpp`if (${name}) { delete ${name}; }`).becomes(cpp`${name}.reset();`),
    use(cpp`delete ${name};`)
      .when(isLastInDestructor)
      .goes(),
    use(cpp`delete ${name};`).becomes(cpp`${name}.reset();`),
    use(cpp`${name} = new ${made}(${args});`).becomes(cpp`${name}.reset(new ${made}(${args}));`),
    use(cpp`${name} = new ${made};`).becomes(cpp`${name}.reset(new ${made});`),
    use(cpp`${name} = ${value};`)
      .when(followsRelease)
      .becomes(cpp`${name}.reset(${value});`),
    use(cpp`return ${name};`).becomes(cpp`return ${name}.get();`),
  ]),
  use(cpp`${p}`)
    .when(
      ({ node }) =>
        node.field === "value" && node.parent?.child("declarator")?.is("pointer_declarator") === true,
    )
    .becomes(cpp`${p}.get()`),
  ...harmlessUses(p, { raw: cpp`${p}.get()`, isTested: true, isRead: true }),
  ...usesThroughObjects(p, cpp`${p}.get()`),
];

const uses = everyUseOf(p, clauses);

/** What is asked of all uses together; they are gathered once for a match. */
const coverages = new WeakMap<Match, Coverage | undefined>();
function ofUses(match: Match, ask: (name: string, coverage: Coverage) => Answer): Answer {
  const coverage = uses.coverage(match);
  coverages.set(match, coverage);
  if (!coverage) return unknown(`what declares \`${match.textOf(p)}\` is not known`, match.node);
  try {
    return coverage.uncovered ?? ask(match.textOf(p), coverage);
  } finally {
    coverage.release();
  }
}

/** Is something put in the place of what was there, without a release before it and outside of constructors? */
function notLost(match: Match): Answer {
  return ofUses(match, (name, { covered }) => {
    const lost = covered.find(({ node, found }) => {
      const isPut = /^(this->)?\w+\s*=\s*new\b/.test(found.tree.text.slice(found.start, found.end));
      const around = functionAround(node);
      if (!isPut || !around || isConstructor(around)) return false;
      return !covered.some(
        (other) => deleteAround(other.node) && around.holds(other.node) && other.node.tree === node.tree,
      );
    });
    return lost
      ? unknown(`\`${name}\` is made anew here; what was there before was lost, and is deleted now`)
      : yes(`whatever \`${name}\` pointed to is deleted before it points to something else`);
  });
}

function isConstructor(around: { child(field: string): { text: string } | undefined }): boolean {
  const name =
    around
      .child("declarator")
      ?.text.replace(/\([\s\S]*$/, "")
      .trim() ?? "";
  const [last, before] = name.split("::").reverse();
  return around.child("type") === undefined && !/~/.test(name) && (before === undefined || before === last);
}

/** Nothing takes the pointer by reference: what the owner gives out cannot be taken so. */
function lentByValue(match: Match): Answer {
  return ofUses(match, (name, { covered }) => {
    for (const { node } of covered) {
      const taker = takerOf(node.parent?.is("field_expression") ? node.parent : node)
        ?.split(/::|\.|->/)
        .at(-1);
      if (taker === undefined || taker === name) continue;
      const texts = [
        match.tree.text,
        ...[...(match.around.files?.naming(taker) ?? [])].map(({ text }) => text),
      ];
      const declared = texts.flatMap((text) => [
        ...text.matchAll(new RegExp(`[\\w>*&]\\s+[*&]?(?:\\w+::)*${taker}\\s*\\(([^;{]*)\\)`, "g")),
      ]);
      if (declared.some(([, list]) => /\*\s*&/.test(list!)))
        return no(`\`${taker}\` takes a pointer by reference`);
    }
    return yes(`nothing takes \`${name}\` by reference`);
  });
}

const { rewrites, holds, ignores } = trialsIn("cpp", "11");
const HEADER =
  "class Hive {\n public:\n  explicit Hive(int n);\n  ~Hive();\n  Hive(const Hive&) = delete;\n  Queen* queen() const { return queen_; }\n private:\n  Queen* queen_;\n};\n";
const NEW_HEADER =
  "#include <memory>\n\n" +
  HEADER.replace("Queen* queen_;", "std::unique_ptr<Queen> queen_;").replace(
    "return queen_;",
    "return queen_.get();",
  );

export const ownedMember = rule({
  id: "cpp/owned-member",
  kind: "idiom",
  title: "Let a unique_ptr own what a member points to",
  why: "A destructor that deletes by hand is forgotten for the next member, and the copy that nobody wrote deletes twice.",
  target: "11",
  was: [cpp.member`${type} *${p};`, cpp.member`${type} *${p} = ${empty};`],
  where: [
    (match) => match.node.is("field_declaration") && classOf(match.node) !== undefined,
    (match) => mayBeOwned(match),
  ],
  given: [
    condition("the destructor deletes it", (match) => ofUses(match, releasedByDestructor)),
    condition("members go in the order in which they went", (match) =>
      ofUses(match, (name, coverage) => goesInOrder(match, name, coverage)),
    ),
    condition("the class is not copied", isNotCopied),
    condition("its type is known where it is made and deleted", (match) =>
      isComplete(match, match.textOf(type)),
    ),
    condition("nothing is lost when it is made anew", notLost),
    condition("nothing takes the pointer by reference", lentByValue),
  ],
  uses,
  needs: [need("<memory>")],
  becomes: cpp.member`std::unique_ptr<${type}> ${p};`,
  trials: [
    rewrites(HEADER, NEW_HEADER, "certain", {
      "trial2.cpp": [
        `
        #include "trial.cpp"
        Hive::Hive(int n) : queen_(0) { queen_ = new Queen(n); }
        Hive::~Hive() {
          delete queen_;
        }
        void Hive::swarm() { delete queen_; queen_ = NULL; leave(queen_); if (queen_ == NULL) stop(); }
        `,
        `
        #include "trial.cpp"
        Hive::Hive(int n) : queen_(nullptr) { queen_.reset(new Queen(n)); }
        Hive::~Hive() = default;
        void Hive::swarm() { queen_.reset(); leave(queen_.get()); if (queen_ == NULL) stop(); }
        `,
      ],
    }),
    rewrites(
      `
      class Hive {
       public:
        Hive(int n) : queen_(new Queen(n)) {}
        virtual ~Hive() { delete queen_; }
        Hive(const Hive& other) : queen_(new Queen(*other.queen_)) {}
        void mark() { if (queen_) queen_->mark(); show(queen_); }
       private:
        Queen* queen_; // marked
      };
      `,
      `
      #include <memory>

      class Hive {
       public:
        Hive(int n) : queen_(new Queen(n)) {}
        virtual ~Hive() = default;
        Hive(const Hive& other) : queen_(new Queen(*other.queen_)) {}
        void mark() { if (queen_) queen_->mark(); show(queen_.get()); }
       private:
        std::unique_ptr<Queen> queen_; // marked
      };
      `,
    ),
    rewrites(
      `
      class Hive {
       public:
        Hive() : a_(NULL), queen_(new Queen) {}
        ~Hive() {
          // she goes first
          delete queen_;
          delete a_;
          log();
        }
        void requeen(Queen* q) { delete queen_; queen_ = q; Queen* mine = queen_; mine->mark(); }
       private:
        Hive(const Hive&);
        Attic* a_;
        Queen* queen_;
      };
      `,
      `
      #include <memory>

      class Hive {
       public:
        Hive() : a_(nullptr), queen_(new Queen) {}
        ~Hive() {
          // she goes first
          queen_.reset();
          a_.reset();
          log();
        }
        void requeen(Queen* q) { queen_.reset(q); Queen* mine = queen_.get(); mine->mark(); }
       private:
        Hive(const Hive&);
        std::unique_ptr<Attic> a_;
        std::unique_ptr<Queen> queen_;
      };
      `,
    ),
    // The frame would go before the queen that walks on it.
    rewrites(
      "struct Hive { Hive() : queen_(new Queen) {} Hive(Hive&) = delete; ~Hive() { delete queen_; } private: Queen* queen_; Frame frame_; };\n",
      "#include <memory>\n\nstruct Hive { Hive() : queen_(new Queen) {} Hive(Hive&) = delete; ~Hive() = default; private: std::unique_ptr<Queen> queen_; Frame frame_; };\n",
      "likely",
    ),
    rewrites(
      "class Hive { Hive() : queen_(new Queen) {} ~Hive() { delete queen_; } Queen* queen_; };\n",
      "#include <memory>\n\nclass Hive { Hive() : queen_(new Queen) {} ~Hive() = default; std::unique_ptr<Queen> queen_; };\n",
      "likely",
    ),
    holds(
      "class Hive { ~Hive() { if (mine_) delete queen_; } Queen* queen_; bool mine_; };\n",
      "only sometimes",
    ),
    holds(
      "class Hive { ~Hive() { delete queen_; } Queen* take() { Queen* q = queen_; queen_ = 0; return q; } Queen* queen_; };\n",
      "does not know",
    ),
    holds(
      "class Hive { ~Hive() { delete queen_; } void f() { fill(&queen_); } Queen* queen_; };\n",
      "does not know",
    ),
    holds(
      "class Hive { ~Hive() { delete queen_; } void f() { shared = queen_; } Queen* queen_; };\n",
      "does not know",
    ),
    holds(
      "class Hive { ~Hive() { delete queen_; } void f() { delete[] queen_; } Queen* queen_; };\n",
      "does not know",
    ),
    holds("class Hive { void swarm() { delete queen_; } Queen* queen_; };\n", "no destructor deletes"),
    holds(
      "class Queen;\nclass Hive { Hive() : queen_(0) {} ~Hive(); Queen* queen_; };\nHive::~Hive() { delete queen_; }\n",
      "needs to know it whole",
    ),
    holds(
      "void take(Queen*& q);\nclass Hive { ~Hive() { delete queen_; } void f() { take(queen_); } Queen* queen_; };\n",
      "by reference",
    ),
    ignores("class Hive { ~Hive() { free(queen_); } Queen* queen_; };\n"),
    ignores("class Hive { ~Hive() {} Queen* queen_; };\n"),
    ignores("void f() { Queen* queen_; delete queen_; }\n"),
  ],
});

/** Is the member deleted anywhere, in this file or in one that names it? Asked first, of the text. */
function mayBeOwned(match: Match): boolean {
  const name = match.textOf(p);
  const form = new RegExp(`\\bdelete\\s+(this->)?${name}\\b`);
  return (
    form.test(match.tree.text) ||
    [...(match.around.files?.naming(name) ?? [])].some(({ text }) => form.test(text))
  );
}
