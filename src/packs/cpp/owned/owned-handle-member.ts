import {
  condition,
  cpp,
  everyUseOf,
  holes,
  need,
  no,
  nameInFile,
  rule,
  Snippet,
  trialsIn,
  yes,
} from "../../../core.js";
import type { EveryUse, Handle, Hole, Match, Rule } from "../../../core.js";
import { calledIn, rowsFor } from "../../family/handles.js";
import {
  deleterIn,
  inPlaceOfHandle,
  isFilledBy,
  releasedBy,
  releaseIn,
  RESOURCES,
  wantsDeleter,
  wrapperOf,
} from "./handles.js";
import { classOf, givenBackBy } from "./member-facts.js";
import { memberClauses, memberConditions } from "./member-uses.js";

const { type, p, empty } = holes({
  type: "type",
  p: "name",
  empty: { kind: "expression", text: /^(NULL|nullptr|0)$/ },
});

/** The row whose release is written for the member, and whose acquisition too, in this file or one that names it. */
function rowOf(match: Match, rows: readonly Handle[]): Handle | undefined {
  const name = match.textOf(p);
  if (nameInFile(name, match.tree).references.length === 0) return undefined;
  const texts = [match.tree.text, ...[...(match.around.files?.naming(name) ?? [])].map((file) => file.text)];
  const escaped = (code: string): string => code.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
  return rows.find((one) => {
    const release = new RegExp(escaped(releaseIn(one)).replace(/\bhandle\b/g, `(this->)?${name}\\b`));
    const call = `\\b${escaped(calledIn(one))}\\s*\\(`;
    const acquire = new RegExp(
      isFilledBy(one)
        ? `${call}[^;]*&\\s*(this->)?${name}\\b`
        : `\\b${name}\\s*(=|\\()\\s*(::|std::)?${call}`,
    );
    return texts.some((text) => release.test(text)) && texts.some((text) => acquire.test(text));
  });
}

const { rewrites, holds, ignores } = trialsIn("cpp", "11");

/** The rule for the handles of the C library, and for those of a project. */
function ownedHandleMemberWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("cpp", RESOURCES, own);
  const known = new WeakMap<Match, EveryUse>();
  const usesOf = (match: Match): EveryUse => {
    let uses = known.get(match);
    if (!uses) known.set(match, (uses = everyUseOf(p, clausesOf(match))));
    return uses;
  };
  const clausesOf = (match: Match) => {
    const handle = rowOf(match, rows)!;
    const wrapper = wrapperOf(handle, match.textOf(type));
    if (!wrapper) return [];
    const code = (text: string) => (member: Snippet, value?: Hole) => inPlaceOfHandle(text, member, value);
    const deleter = wantsDeleter(wrapper) ? `&${deleterIn(handle)}` : undefined;
    const { get, reset, take, fill, read } = wrapper;
    return memberClauses(p, {
      giving: givenBackBy(releaseIn(handle)),
      release: code(releaseIn(handle)),
      raw: code(get),
      reset: (member) => (reset === undefined ? undefined : code(reset)(member)),
      put: (member, value) => (take === undefined ? undefined : code(take)(member, value)),
      empty: deleter === undefined ? "" : "nullptr",
      deleter,
      ...(fill === undefined ? {} : { fill: code(fill) }),
      ...(read === undefined ? {} : { read: code(read) }),
      isFill: ({ node }) =>
        isFilledBy(handle) && node.closest(["call_expression"])?.child("function")?.text === calledIn(handle),
      isTested: wantsDeleter(wrapper),
      releasedBy: releasedBy(handle),
    });
  };
  return rule({
    id: "cpp/owned-handle-member",
    kind: "idiom",
    title: "Use an owning wrapper for a handle in a member",
    why: "A destructor that gives back by hand is forgotten for the next member, and the copy that nobody wrote gives back twice.",
    target: "11",
    withHandles: ownedHandleMemberWith,
    was: [cpp.member`${type} *${p};`, cpp.member`${type} *${p} = ${empty};`],
    where: [
      (match) => match.node.is("field_declaration") && classOf(match.node) !== undefined,
      (match) => rowOf(match, rows) !== undefined,
    ],
    given: [
      condition("there is something that owns it", (match) => {
        const handle = rowOf(match, rows)!;
        return wrapperOf(handle, match.textOf(type))
          ? yes("resource.owner", "an owner is known")
          : no("resource.owner", `the config names no wrapper for what \`${calledIn(handle)}\` gives`);
      }),
      ...memberConditions(p, usesOf, (match) => givenBackBy(releaseIn(rowOf(match, rows)!))),
    ],
    uses: usesOf,
    needs: (match) => {
      const include = wrapperOf(rowOf(match, rows)!, match.textOf(type))?.include;
      return include === undefined ? [] : [need(include)];
    },
    becomes: (match) => {
      const handle = rowOf(match, rows)!;
      const wrapper = wrapperOf(handle, match.textOf(type))!;
      const filled = wantsDeleter(wrapper) ? `{nullptr, &${deleterIn(handle)}}` : "";
      return new Snippet("cpp", [`${wrapper.type} `, `${filled};`], [p], "member");
    },
    trials: [
      rewrites(
        `
        class Log {
         public:
          explicit Log(const char* path) : file_(fopen(path, "a")) {}
          Log(const Log&) = delete;
          ~Log() {
            if (file_) fclose(file_);
          }
          void add(const char* line) { if (file_) fputs(line, file_); }
          void rotate(const char* path) { fclose(file_); file_ = fopen(path, "a"); }
         private:
          FILE* file_;
        };
        `,
        `
        #include <memory>

        class Log {
         public:
          explicit Log(const char* path) : file_(fopen(path, "a"), &fclose) {}
          Log(const Log&) = delete;
          ~Log() = default;
          void add(const char* line) { if (file_) fputs(line, file_.get()); }
          void rotate(const char* path) { file_.reset(); file_.reset(fopen(path, "a")); }
         private:
          std::unique_ptr<FILE, int (*)(FILE*)> file_{nullptr, &fclose};
        };
        `,
      ),
      rewrites(
        "class Log { Log() : f_(NULL) {} Log(Log&); ~Log() { fclose(f_); } void f() { f_ = fopen(a, b); } FILE* f_; };\n",
        "#include <memory>\n\nclass Log { Log() : f_(nullptr, &fclose) {} Log(Log&); ~Log() = default; void f() { f_.reset(fopen(a, b)); } std::unique_ptr<FILE, int (*)(FILE*)> f_{nullptr, &fclose}; };\n",
        "likely",
      ),
      holds(
        "class Log { Log() : f_(fopen(a, b)) {} ~Log() { if (own_) fclose(f_); } FILE* f_; };\n",
        "only sometimes",
      ),
      holds(
        "class Log { Log() : f_(fopen(a, b)) {} void stop() { fclose(f_); } FILE* f_; };\n",
        "no destructor gives",
      ),
      holds(
        "class Log { Log() : f_(fopen(a, b)) {} ~Log() { fclose(f_); } void give() { kept = f_; } FILE* f_; };\n",
        "does not know",
      ),
      holds(
        "class Log { Log() : f_(fopen(a, b)) {} ~Log() { if (fclose(f_)) g(); } void h() { fclose(f_); } FILE* f_; };\n",
        "does not know",
      ),
      ignores("class Log { Log() : f_(hive(a, b)) {} ~Log() { fclose(f_); } FILE* f_; };\n"),
      ignores("class Log { Log() : f_(fopen(a, b)) {} ~Log() { } FILE* f_; };\n"),
    ],
  });
}

export const ownedHandleMember = ownedHandleMemberWith();
