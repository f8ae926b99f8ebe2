import { condition, cpp, everyUseOf, holes, need, rule, textFound, trialsIn } from "../../../core.js";
import type { Match } from "../../../core.js";
import { classOf, DELETED, isComplete } from "./member-facts.js";
import { memberClauses, memberConditions } from "./member-uses.js";
import { canBeOwned } from "./release.js";

const { type, p, empty } = holes({
  type: "type",
  p: "name",
  empty: { kind: "expression", text: /^(NULL|nullptr|0)$/ },
});

const uses = everyUseOf(
  p,
  memberClauses(p, {
    giving: DELETED,
    release: (member) => cpp`delete ${member}`,
    raw: (member) => cpp`${member}.get()`,
    reset: (member) => cpp`${member}.reset()`,
    put: (member, value) => cpp`${member}.reset(${value})`,
    empty: "nullptr",
    isTested: true,
  }),
);

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
  title: "Use unique_ptr for an object that a member points to",
  why: "A destructor that deletes by hand is forgotten for the next member, and the copy that nobody wrote deletes twice.",
  target: "11",
  was: [cpp.member`${type} *${p};`, cpp.member`${type} *${p} = ${empty};`],
  where: [
    (match) => match.node.is("field_declaration") && classOf(match.node) !== undefined,
    (match) => mayBeOwned(match),
  ],
  given: [
    ...memberConditions(
      p,
      () => uses,
      () => DELETED,
    ),
    condition("an owner can delete it", (match) => canBeOwned(match, match.textOf(type))),
    condition("its type is known where it is made and deleted", (match) =>
      isComplete(match, match.textOf(type)),
    ),
  ],
  uses,
  needs: [need("<memory>")],
  becomes: cpp.member`std::unique_ptr<${type}> ${p};`,
  trials: [
    rewrites(HEADER, NEW_HEADER, "likely", {
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
      void show(const Queen* queen);
      class Hive {
       public:
        Hive(int n) : queen_(new Queen(n /* marked */)) {}
        virtual ~Hive() { delete queen_; }
        Hive(const Hive& other) : queen_(new Queen(*other.queen_)) {}
        void mark() { if (queen_) queen_->mark(); show(queen_); }
       private:
        Queen* queen_; // marked
      };
      `,
      `
      #include <memory>

      void show(const Queen* queen);
      class Hive {
       public:
        Hive(int n) : queen_(new Queen(n /* marked */)) {}
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
      struct Attic {};
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

      struct Attic {};
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
      "class Hive { ~Hive() { if (lent_) return; delete queen_; } Queen* queen_; bool lent_; };\n",
      "only sometimes",
    ),
    rewrites(
      `
      struct Hive {
        Hive() : queen_(new Queen) {}
        Hive(const Hive&) = delete;
        ~Hive() { if (queen_) { delete queen_; queen_ = NULL; } log(); }
        Queen* queen_;
      };
      `,
      `
      #include <memory>

      struct Hive {
        Hive() : queen_(new Queen) {}
        Hive(const Hive&) = delete;
        ~Hive() { queen_.reset(); log(); }
        std::unique_ptr<Queen> queen_;
      };
      `,
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
    holds("class Hive { void swarm() { delete queen_; } Queen* queen_; };\n", "no destructor gives"),
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
    textFound(match.tree, form) !== undefined ||
    [...(match.around.files?.naming(name) ?? [])].some(({ text }) => form.test(text))
  );
}
