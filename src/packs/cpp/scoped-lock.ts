import {
  isNamedLike,
  classesNamed,
  condition,
  cpp,
  fresh,
  holes,
  need,
  no,
  placeOf,
  rule,
  shortened,
  Snippet,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, KnownType, Match, SyntaxNode } from "../../core.js";
import { declaredForLater } from "../family/resource.js";
import { isInert } from "./owned/release.js";
import { isSameThroughout, letGoSooner } from "../family/members.js";

const { mutex, body, value } = holes({ mutex: "expression", body: "statements", value: "expression" });
const guard = fresh("guard");

const FORMS = [
  cpp`
    ${mutex}.lock();
    ${body}
    ${mutex}.unlock();
    return ${value};
  `,
  cpp`
    ${mutex}.lock();
    ${body}
    ${mutex}.unlock();
  `,
];
const RETURNS = 0;

function isMutex(match: Match): Answer {
  const node = match.the(mutex);
  const type = typeOf(
    node.is("field_expression") && node.child("argument")?.is("this") ? node.child("field")! : node,
  );
  if (!type) return unknown("type.not-known", `the type of \`${node.text}\` is not known`, node);
  const own = classesNamed(node.tree, type.name);
  if (own.classes[0])
    return no("type.is", `\`${type.name}\` is a class of the project (${placeOf(own.classes[0])})`, type.at);
  if (!isStandard(type, node))
    return unknown("type.is", `${type.why}, which may be no mutex of the standard library`, type.at);
  return isNamedLike(type.name, "lock", node)
    ? yes("type.is", type.why, type.at)
    : unknown("type.is", `${type.why}, which may be no mutex of the standard library`, type.at);
}

/** Is a type written with `std::`, or does the file say that it uses that namespace? */
function isStandard({ module, why }: KnownType, { tree }: SyntaxNode): boolean {
  return (
    module === "std" ||
    /`(const )?std::/.test(why) ||
    /\busing\s+(namespace\s+std|std::\w*mutex)\s*;/.test(tree.text)
  );
}

/** Where something follows in the block, the lock needs a block of its own, not to be held longer than before. */
function isLastInBlock(match: Match): boolean {
  const last = match.nodes.at(-1)!;
  const list = last.parent;
  return (
    list?.is("compound_statement") === true &&
    list.parts
      .filter((part) => !part.is("comment"))
      .at(-1)
      ?.same(last) === true
  );
}

const QUIET = ["true", "false", "null", "number_literal", "string_literal", "char_literal"];

/** Is what is returned worked out in the same way with the lock held? */
function returnsQuietly(match: Match): Answer {
  if (match.alternative !== RETURNS)
    return yes("flow.order", "nothing is worked out after the lock is let go");
  const node = match.the(value);
  const isLocal =
    node.is("identifier") &&
    !/_$|^m_|^g_/.test(node.text) &&
    match.all(body).some((one) => one.mentions(node.text).length > 0);
  return node.is(QUIET) || isLocal
    ? yes("flow.order", `\`${node.text}\` is only handed back`, node)
    : unknown("flow.order", `\`${node.text}\` is worked out with the lock held now`, node);
}

const { rewrites, holds, ignores } = trialsIn("cpp", "11");

export const scopedLock = rule({
  id: "cpp/scoped-lock",
  kind: "idiom",
  title: "Use a lock guard to hold a mutex",
  why: "A mutex that is let go by hand stays locked when something in between throws, or when somebody adds a return.",
  target: "11",
  was: FORMS,
  where: [(match) => match.alternative !== RETURNS || isLastInBlock(match)],
  given: [
    condition("it is a mutex of the standard library", isMutex, { unknownIs: "possible" }),
    condition("the mutex is neither locked nor let go meanwhile", (match) => {
      const name = match.textOf(mutex);
      const other = match
        .all(body)
        .flatMap((one) => [...one.descendants()])
        .find((one: SyntaxNode) => one.is(["field_expression", "argument_list"]) && mentions(one, name));
      return other
        ? no("flow.written", `\`${name}\` is used while it is locked`, other)
        : yes("flow.written", "it is left alone meanwhile");
    }),
    condition("a block of its own has room", (match) =>
      isLastInBlock(match) || match.nodes.every(({ start, tree }) => tree.firstOnLine(start) === start)
        ? yes("form.worthwhile", "each statement has a line to itself")
        : no("form.worthwhile", "the statements share a line with others", match.node),
    ),
    condition("what is declared meanwhile is used only there", (match) => {
      const later = isLastInBlock(match) ? undefined : declaredForLater(match, body);
      return later
        ? no("name.scope", `\`${later.use.text}\` is used behind what becomes a block`, later.use)
        : yes("name.scope", "what is declared in the block is used only there");
    }),
    condition("no destructor runs while the lock is held that ran after it before", (match) => {
      const open = match.all(body).find((one) => one.is("declaration") && !isInert(one));
      return open
        ? unknown(
            "resource.order",
            `\`${shortened(open.text)}\` is destroyed while the lock is held now`,
            open,
          )
        : yes("resource.order", "no destructor runs while the lock is held");
    }),
    letGoSooner(body, () => true),
    condition("the mutex is the same object throughout", (match) =>
      isSameThroughout(match.the(mutex), match.all(body)),
    ),
    condition("what is returned does not need the mutex to be free", returnsQuietly),
    condition("something is done under the lock", (match) =>
      match.all(body).length > 0
        ? yes("form.worthwhile", "something is done")
        : no("form.worthwhile", "nothing is done", match.node),
    ),
  ],
  needs: [need("<mutex>")],
  becomes: (match) => {
    const head = new Snippet(
      "cpp",
      [`std::lock_guard<${mutexType(match)}> `, `(${match.textOf(mutex)});`],
      [guard],
    );
    return match.alternative === RETURNS
      ? cpp`
          ${head}
          ${body}
          return ${value};
        `
      : isLastInBlock(match)
        ? cpp`
            ${head}
            ${body}
          `
        : cpp`
            {
              ${head}
              ${body}
            }
          `;
  },
  trials: [
    rewrites(
      "std::mutex m;\nvoid f() {\n  m.lock();\n  count++; // bees\n  m.unlock();\n}\n",
      "#include <mutex>\n\nstd::mutex m;\nvoid f() {\n  std::lock_guard<std::mutex> guard(m);\n  count++; // bees\n}\n",
    ),
    rewrites(
      "#include <mutex>\nclass A { std::recursive_mutex m_; int n_; int f() { m_.lock(); int n = n_; m_.unlock(); return n; } };\n",
      "#include <mutex>\nclass A { std::recursive_mutex m_; int n_; int f() { std::lock_guard<std::recursive_mutex> guard(m_); int n = n_;\nreturn n; } };\n",
    ),
    rewrites(
      "#include <mutex>\nvoid f(Hive& h) { h.gate.lock(); h.open(); h.gate.unlock(); }\n",
      "#include <mutex>\nvoid f(Hive& h) { std::lock_guard<std::mutex> guard(h.gate); h.open(); }\n",
      "possible",
    ),
    rewrites(
      "#include <mutex>\nstd::mutex m;\nint f() { m.lock(); n++; m.unlock(); return g(); }\n",
      "#include <mutex>\nstd::mutex m;\nint f() { std::lock_guard<std::mutex> guard(m); n++;\nreturn g(); }\n",
      "likely",
    ),
    holds("std::mutex m;\nvoid f() { m.lock(); m.unlock(); }\n", "nothing is done"),
    holds("std::mutex m;\nvoid f() { m.lock(); wait(m); m.unlock(); }\n", "while it is locked"),
    holds(
      "std::mutex m;\nvoid f() { m.lock(); if (a) { m.unlock(); return; } m.unlock(); }\n",
      "while it is locked",
    ),
    rewrites(
      `
      std::mutex m;
      void f() {
        m.lock();
        n++; // bees
        m.unlock();
        g();
      }
      `,
      `
      #include <mutex>

      std::mutex m;
      void f() {
        {
          std::lock_guard<std::mutex> guard(m);
          n++; // bees
        }
        g();
      }
      `,
    ),
    holds(
      "std::mutex m;\nvoid f() {\n  m.lock();\n  int k = n;\n  m.unlock();\n  g(k);\n}\n",
      "behind what becomes a block",
    ),
    holds("std::mutex m;\nvoid f() { m.lock(); n++; m.unlock(); g(); }\n", "share a line"),
    ignores("std::mutex m;\nvoid f() { m.lock(); n++; other.unlock(); }\n"),
    ignores("void f() { if (m.try_lock()) { n++; m.unlock(); } }\n"),
  ],
});

function mentions(node: SyntaxNode, name: string): boolean {
  if (node.is("field_expression")) return node.child("argument")?.text === name;
  return node.parts.some((part) => part.text === name || part.text === `&${name}`);
}

/** The type to name in the guard: the mutex's own, else the plain one. */
function mutexType(match: Match): string {
  const node = match.the(mutex);
  const type = typeOf(
    node.is("field_expression") && node.child("argument")?.is("this") ? node.child("field")! : node,
  );
  const name = type && /mutex$/.test(type.name) ? type.name : "mutex";
  return `std::${name}`;
}
