import {
  canThrow,
  condition,
  cpp,
  declarationOfHole,
  everyUseOf,
  functionAround,
  holes,
  isDefinedInProject,
  isLibraryFunction,
  isUsedAfter,
  need,
  no,
  rule,
  Snippet,
  trialsIn,
  unknown,
  use,
  usesOf,
  waysOutWithout,
  yes,
} from "../../../core.js";
import type { Answer, Handle, Match, Rule, SyntaxNode, UseClause, Wrapper } from "../../../core.js";
import { isInFunction } from "../pointers.js";
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
import { harmlessUses } from "./pointer-uses.js";
import { goesAtOnce, statementsBetween } from "./release.js";

const { type, p, made, empty } = holes({
  type: "type",
  p: "name",
  made: { kind: "expression", node: "call_expression" },
  empty: { kind: "expression", text: /^(NULL|nullptr|0)$/ },
});

/** Code of a row with the variable's hole in the place of `handle`. */
const withHole = (code: string): Snippet => inPlaceOfHandle(code, cpp`${p}`);
const ownerOf = (handle: Handle, match: Match): Wrapper | undefined => wrapperOf(handle, match.textOf(type));

/** The uses of the variable, by the nodes of its name. */
function usesIn(match: Match): readonly SyntaxNode[] {
  const to = declarationOfHole(match, p);
  return to ? usesOf(to).references.map(({ node }) => node) : [];
}

/** The statements that give the handle back. */
function releases(match: Match, handle: Handle): SyntaxNode[] {
  const bare = (code: string): string => code.replace(/\s+/g, "").replace(/;$/, "");
  const wanted = bare(releaseIn(handle).replace(/\bhandle\b/g, match.textOf(p)));
  return usesIn(match).flatMap((node) => {
    const statement = node.closest(["expression_statement"]);
    return statement && bare(statement.text) === wanted ? [statement] : [];
  });
}

/** The call that fills the variable through its address. */
function fillingCall(match: Match, handle: Handle): SyntaxNode | undefined {
  for (const node of usesIn(match)) {
    const isAddress = node.parent?.is("pointer_expression") === true && node.parent.has("&");
    const call = isAddress ? node.closest(["call_expression"]) : undefined;
    if (call?.child("function")?.text === calledIn(handle)) return call;
  }
  return undefined;
}

/** The row whose handle the variable holds. */
function rowOf(match: Match, rows: readonly Handle[]): Handle | undefined {
  if (!match.has(made)) return rows.find((one) => isFilledBy(one) && fillingCall(match, one) !== undefined);
  const called = match
    .the(made)
    .child("function")
    ?.text.replace(/^(::|std::)/, "");
  return rows.find((one) => !isFilledBy(one) && calledIn(one) === called);
}

/** Are the functions of a shipped row those of the C library, and not some of the project's? */
function meansLibrary(match: Match, handle: Handle): Answer {
  if (!RESOURCES.includes(handle)) return yes("resource.owner", "the project names it");
  const called = match.has(made) ? match.the(made).child("function") : undefined;
  const acquired = called
    ? isLibraryFunction(called)
    : yes("resource.acquired", "it is a function of the C library");
  if (acquired.is !== "yes")
    return unknown(acquired.evidence.code, acquired.evidence.says, acquired.evidence);
  const name = releasedBy(handle);
  const released = name === undefined ? undefined : isDefinedInProject(name, match.tree);
  return released ?? acquired;
}

/** Is the handle given back on every way out that needs no exception? */
function givenBack(match: Match, handle: Handle): Answer {
  const to = declarationOfHole(match, p);
  const name = match.textOf(p);
  const call = match.has(made) ? undefined : fillingCall(match, handle);
  const ways = to && waysOutWithout(call ?? match.node, releases(match, handle), to);
  if (!ways)
    return no("resource.every-path", `not all ways from \`${name}\` to the end are known`, match.node);
  const open = ways.filter(({ by }) => by !== "exception");
  const whereItFailed = open.filter(({ at }) => call !== undefined && at && asksForSuccess(at, call));
  const [lost] = open.filter((way) => !whereItFailed.includes(way));
  if (lost) {
    const where = lost.by === "return" ? `where \`${lost.at!.text.split("\n")[0]}\` leaves` : "at the end";
    return no(
      "resource.every-path",
      `\`${name}\` is given back on some ways only, and not ${where}`,
      lost.at ?? match.node,
    );
  }
  return whereItFailed.length > 0
    ? unknown(
        "resource.acquired",
        `where \`${calledIn(handle)}\` fails, \`${name}\` is taken to hold nothing`,
        whereItFailed[0]!.at,
      )
    : yes("resource.every-path", `\`${name}\` is given back on every way out`);
}

/** Does a jump stand in a branch that asks how the call went: `if (open(&p) != 0) return`? */
function asksForSuccess(jump: SyntaxNode, call: SyntaxNode): boolean {
  const branch = jump.closest(["if_statement"]);
  const test = branch?.child("condition");
  if (!test) return false;
  if (test.holds(call)) return true;
  const holder = call.closest(["init_declarator", "assignment_expression"]);
  const result = holder?.child("declarator")?.text ?? holder?.child("left")?.text;
  return result !== undefined && test.mentions(result).length > 0;
}

/** Clauses for all that may be done with the variable. */
function clausesFor(handle: Handle, wrapper: Wrapper): UseClause[] {
  const release = withHole(releaseIn(handle));
  const reset = wrapper.reset === undefined ? undefined : cpp`${withHole(wrapper.reset)};`;
  const isFill = (match: Match): boolean =>
    match.node.closest(["call_expression"])?.child("function")?.text === calledIn(handle) &&
    isFilledBy(handle);
  const goes = (match: Match): boolean => {
    const to = declarationOfHole(match, p);
    return to !== undefined && goesAtOnce(match.node.closest(["expression_statement"]) ?? match.node, to);
  };
  const follows = (match: Match): boolean => {
    const statement = match.node.closest(["expression_statement"]);
    const before = statement?.parent?.parts.filter((part) => part.end <= statement.start).at(-1);
    return before !== undefined && releases(match, handle).some((one) => one.same(before));
  };
  return [
    ...(reset ? [use(cpp`${release}; ${p} = ${empty};`).becomes(reset)] : []),
    use(cpp`${p} = ${empty};`)
      .when(follows)
      .stays(),
    use(cpp`${release};`)
      .when(goes)
      .goes(),
    ...(reset ? [use(cpp`${release};`).becomes(reset)] : []),
    ...(wrapper.fill === undefined
      ? []
      : [
          use(cpp`&${p}`)
            .when(isFill)
            .becomes(withHole(wrapper.fill)),
        ]),
    ...(wrapper.read === undefined
      ? []
      : [
          use(cpp`&${p}`)
            .when((match) => !isFill(match))
            .becomes(withHole(wrapper.read)),
        ]),
    ...harmlessUses(p, {
      raw: withHole(wrapper.get),
      isTested: wrapper.type.startsWith("std::"),
      isRead: true,
      releasedBy: releasedBy(handle),
    }),
  ];
}

const { rewrites, holds, ignores } = trialsIn("cpp", "11");

/** The rule for the handles of the C library, and for those of a project. */
function ownedHandleWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("cpp", RESOURCES, own);
  return rule({
    id: "cpp/owned-handle",
    kind: "idiom",
    title: "Use an owning wrapper for a handle",
    why: "A handle that is given back by hand is lost when something in between throws, or when somebody adds a return.",
    target: "11",
    withHandles: ownedHandleWith,
    was: [cpp`${type} *${p} = ${made};`, cpp`${type} *${p} = ${empty};`, cpp`${type} *${p};`],
    where: [
      (match) => isInFunction(match.node),
      (match) => match.node.is("declaration") && functionAround(match.node) !== undefined,
      (match) => {
        const handle = rowOf(match, rows);
        return handle !== undefined && releases(match, handle).length > 0;
      },
    ],
    given: [
      condition("what acquires and releases it is the C library, or the project says so", (match) =>
        meansLibrary(match, rowOf(match, rows)!),
      ),
      condition("nobody notices that it is given back when something in between throws", (match) => {
        const between = statementsBetween(match.node, releases(match, rowOf(match, rows)!));
        const thrower = between.map(canThrow).find(({ is }) => is !== "no");
        return thrower
          ? unknown(
              "resource.sooner",
              `${thrower.evidence.says}; it is given back then, and was not before`,
              thrower.evidence,
            )
          : yes("resource.sooner", "nothing in between throws");
      }),
      condition("the type of the handle is spelt out, where the owner names it", (match) =>
        /\bauto\b/.test(ownerOf(rowOf(match, rows)!, match)?.type ?? "")
          ? no("type.not-known", "the owner must name the type that `auto` stands for", match.the(type))
          : yes("type.not-known", "the owner knows the type"),
      ),
      condition("there is something that owns it", (match) =>
        ownerOf(rowOf(match, rows)!, match)
          ? yes("resource.owner", "an owner is known")
          : no(
              "resource.owner",
              `the config names no wrapper for what \`${calledIn(rowOf(match, rows)!)}\` gives`,
            ),
      ),
      condition("it is given back on every way out", (match) => givenBack(match, rowOf(match, rows)!)),
      condition("it is not used after it was given back", (match) => {
        const to = declarationOfHole(match, p);
        for (const statement of releases(match, rowOf(match, rows)!)) {
          const answer = to
            ? isUsedAfter(to, statement)
            : unknown("name.not-resolved", "what declares it is not known");
          if (answer.is === "yes")
            return no(
              "resource.used-after",
              `\`${match.textOf(p)}\` is used after it was given back`,
              statement,
            );
          if (answer.is === "unknown") return answer;
        }
        return yes("resource.used-after", "it is not used after it was given back");
      }),
    ],
    uses: (match) => {
      const handle = rowOf(match, rows)!;
      return everyUseOf(p, clausesFor(handle, ownerOf(handle, match)!));
    },
    needs: (match) => {
      const include = ownerOf(rowOf(match, rows)!, match)?.include;
      return include === undefined ? [] : [need(include)];
    },
    becomes: (match) => {
      const handle = rowOf(match, rows)!;
      const wrapper = ownerOf(handle, match)!;
      const named = new Snippet("cpp", [`${wrapper.type} `, ""], [p]);
      if (!match.has(made)) return cpp`${named};`;
      const deleter = wantsDeleter(wrapper) ? `, &${deleterIn(handle)}` : "";
      return new Snippet("cpp", [`${wrapper.type} `, `(${match.textOf(made)}${deleter});`], [p]);
    },
    trials: [
      rewrites(
        `
        int count(const char* path) {
          FILE* file = fopen(path, "r"); // hive records
          if (!file) return -1;
          int n = fgetc(file);
          fclose(file);
          return n;
        }
        `,
        `
        #include <memory>

        int count(const char* path) {
          std::unique_ptr<FILE, int (*)(FILE*)> file(fopen(path, "r"), &fclose); // hive records
          if (!file) return -1;
          int n = fgetc(file.get());
          return n;
        }
        `,
      ),
      rewrites(
        `
        bool copy(const char* path) {
          FILE *file = fopen(path, "r");
          if (file == NULL) {
            return false;
          }
          if (feof(file)) {
            fclose(file);
            return false;
          }
          fclose(file);
          file = NULL;
          remove(path);
          return true;
        }
        `,
        `
        #include <memory>

        bool copy(const char* path) {
          std::unique_ptr<FILE, int (*)(FILE*)> file(fopen(path, "r"), &fclose);
          if (file == NULL) {
            return false;
          }
          if (feof(file.get())) {
            return false;
          }
          file.reset();
          remove(path);
          return true;
        }
        `,
      ),
      holds(
        "int f() { FILE* a = fopen(p, q); int n = 1; if (n) return 2; fclose(a); return n; }\n",
        "on some ways only",
      ),
      holds("int f() { FILE* a = fopen(p, q); fclose(a); return fgetc(a); }\n", "after it was given back"),
      holds(
        "int f() { FILE* a = fopen(p, q); if (fclose(a) != 0) return 1; fclose(a); return 0; }\n",
        "on some ways only",
      ),
      holds("void f() { FILE* a = fopen(p, q); kept = a; fclose(a); }\n", "does not know"),
      holds("void f() { FILE* a = fopen(p, q); g(&a); fclose(a); }\n", "does not know"),
      holds("void f() { FILE* a = fopen(p, q); a = freopen(p, q, a); fclose(a); }\n", "does not know"),
      ignores("FILE* f() { FILE* a = fopen(p, q); return a; }\n"),
      ignores("void f() { FILE* a = hive(p); fclose(a); }\n"),
      ignores("void f(FILE* a) { fgetc(a); fclose(a); }\n"),
      trialsIn("cpp", "3").ignores("void f() { FILE* a = fopen(p, q); fgetc(a); fclose(a); }\n"),
    ],
  });
}

export const ownedHandle = ownedHandleWith();
