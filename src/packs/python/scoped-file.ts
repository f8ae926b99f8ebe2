import {
  builtin,
  condition,
  earlyExits,
  holes,
  neverWritten,
  python,
  readsOf,
  rule,
  runsLater,
} from "../../index.js";
import { functionAround, no, scopeAround, shortened, trialsIn, unknown, yes } from "../../index.js";
import type { Answer, Match, SyntaxNode } from "../../index.js";

const { file, how, body } = holes({ file: "name", how: "arguments", body: "statements" });

const WITH_FINALLY = 0;

/** Reads of the file variable between opening and closing. */
function uses(match: Match): SyntaxNode[] {
  return match.all(body).flatMap((statement) => readsOf(match.textOf(file), statement));
}

/** On the way that runs to the end, nothing changes; on the others the file is now closed. Does anyone mind? */
function outlives(match: Match): Answer {
  if (match.alternative === WITH_FINALLY) return yes("the old code closes the file on every path too");
  const name = match.textOf(file);
  const statements = match.all(body);
  const kept = uses(match).find((use) => !isUsedOnTheSpot(use));
  if (kept) return no(`\`${name}\` is kept or handed on`, kept);
  const later = uses(match).find((use) => statements.some((s) => s.holds(use) && runsLater(use, s)));
  if (later) return no(`\`${name}\` is used in a function that may run later`, later);

  const around = functionAround(match.node) ?? match.tree.root;
  const outside = readsOf(name, around).find(
    (use) => use.start < match.found.start || use.start > match.found.end,
  );
  const guarded = [...match.node.ancestors()].some((node) => node.is("try_statement") && around.holds(node));
  const exit = earlyExits(statements).find((node) => node.is(["break_statement", "continue_statement"]));
  if (outside && guarded) return no(`\`${name}\` may still be used after an exception`, outside);
  if (outside && exit) return no(`\`${name}\` may still be used after \`${exit.text}\``, outside);
  const argument = uses(match).find((use) => use.parent?.is(["argument_list", "keyword_argument"]));
  if (argument) {
    const call = argument.closest(["call"]);
    return unknown(
      `\`${shortened(call?.text ?? "")}\` could keep the file and use it after an exception`,
      argument,
    );
  }
  return yes(`\`${name}\` is used only here`);
}

/** Attributes of a file that do not keep it open in any form. */
const PLAIN_DATA = ["name", "mode", "encoding", "errors", "newlines", "closed"];

/** A method called, a loop over lines, an argument of a call: the uses that do not keep the file. */
function isUsedOnTheSpot(use: SyntaxNode): boolean {
  const { parent } = use;
  if (!parent) return false;
  if (parent.is("attribute")) {
    const called = parent.parent?.is("call") === true && parent.field === "function";
    return called || PLAIN_DATA.includes(parent.child("attribute")?.text ?? "");
  }
  if (parent.is(["for_statement", "for_in_clause"])) return use.field === "right";
  if (parent.is("keyword_argument")) return parent.closest(["call"]) !== undefined && !isHandedOn(parent);
  return parent.is("argument_list") && !isHandedOn(use);
}

/** Is the call that takes the file returned or yielded as it is? */
function isHandedOn(argument: SyntaxNode): boolean {
  const call = argument.closest(["call"]);
  return call?.parent?.is(["return_statement", "yield"]) ?? true;
}

const { rewrites, ignores, holds } = trialsIn("python");

export const scopedFile = rule({
  id: "python/scoped-file",
  kind: "idiom",
  title: "Let a with block close the file",
  why: "A file closed by hand stays open when something in between throws or returns early.",
  was: [
    python`
      ${file} = open(${how})
      try:
          ${body}
      finally:
          ${file}.close()
    `,
    python`
      ${file} = open(${how})
      ${body}
      ${file}.close()
    `,
  ],
  given: [
    builtin("open"),
    condition("something happens between opening and closing", (match) =>
      match.all(body).length > 0
        ? yes("the block is not empty")
        : no("nothing happens between opening and closing", match.node),
    ),
    neverWritten(file, { in: body }),
    condition("the file is closed in one place", (match) => {
      const closed = uses(match).find(
        (use) => use.parent?.is("attribute") && use.parent.child("attribute")?.text === "close",
      );
      return closed
        ? no("the file is closed in another place too", closed)
        : yes("the file is closed in one place");
    }),
    condition("nobody needs the file open after an early exit", outlives),
    condition("the variable is not shared with other functions", (match) => {
      const shared = scopeAround(match.node)
        .mentions(match.textOf(file))
        .find((use) => use.parent?.is(["global_statement", "nonlocal_statement"]));
      return shared && match.alternative !== WITH_FINALLY
        ? no("the file is shared with other functions", shared)
        : yes("the variable belongs to this scope");
    }),
  ],
  becomes: python`
    with open(${how}) as ${file}:
        ${body}
  `,
  trials: [
    rewrites(
      `
      def read(path):
          f = open(path)
          try:
              return f.read()  # all of it
          finally:
              f.close()
      `,
      `
      def read(path):
          with open(path) as f:
              return f.read()  # all of it
      `,
    ),
    rewrites(
      `
      def read(path):
          f = open(path, "r")  # hive records
          # one a line
          lines = f.readlines()

          count = len(lines)
          f.close()
          return count
      `,
      `
      def read(path):
          with open(path, "r") as f:  # hive records
              # one a line
              lines = f.readlines()

              count = len(lines)
          return count
      `,
    ),
    rewrites(
      `
      def write(path, text):
          f = open(path, "w")
          f.write("""first
      second""")
          f.write(text)
          f.close()
      `,
      `
      def write(path, text):
          with open(path, "w") as f:
              f.write("""first
      second""")
              f.write(text)
      `,
    ),
    rewrites(
      `
      import json
      def load(path):
          f = open(path)
          data = json.load(f)
          f.close()
          return data
      `,
      `
      import json
      def load(path):
          with open(path) as f:
              data = json.load(f)
          return data
      `,
      "likely",
    ),
    rewrites(
      `
      @patch(__name__ + '.open')
      def read(stand_in):
          f = open("a")
          text = f.read()
          f.close()
          return text
      `,
      `
      @patch(__name__ + '.open')
      def read(stand_in):
          with open("a") as f:
              text = f.read()
          return text
      `,
      "likely",
    ),
    ignores(`
      def keep(path):
          f = open(path)
          return f
    `),
    ignores(`
      f = open("a"); f.read(); f.close()
    `),
    holds(
      `
      def lines(path):
          f = open(path)
          if not path:
              return f
          f.read()
          f.close()
      `,
      "kept or handed on",
    ),
    holds(
      `
      def read(path):
          f = open(path)
          if f.read(1) == "x":
              f.close()
              return None
          text = f.read()
          f.close()
          return text
      `,
      "closed in another place",
    ),
    holds(
      `
      from codecs import open
      def read(path):
          f = open(path)
          text = f.read()
          f.close()
      `,
      "another meaning",
    ),
    rewrites(
      `
      def two(a, b):
          f = open(a)
          x = f.read()
          f = open(b)
          y = f.read()
          f.close()
      `,
      `
      def two(a, b):
          f = open(a)
          x = f.read()
          with open(b) as f:
              y = f.read()
      `,
    ),
    holds(
      `
      def touch(path):
          f = open(path, "w")
          f.close()
      `,
      "nothing happens",
    ),
    holds(
      `
      def last(paths):
          for path in paths:
              f = open(path)
              if not path:
                  return None
              if f.read(1):
                  break
              f.close()
          return f.read()
      `,
      "after `break`",
    ),
    holds(
      `
      def guarded(path):
          try:
              f = open(path)
              f.write("x")
              f.close()
          except ValueError:
              f.write("y")
      `,
      "after an exception",
    ),
    holds(
      `
      def reader(path):
          f = open(path)
          if path:
              return f.readline
          print(f.name, f.read())
          f.close()
      `,
      "kept or handed on",
    ),
    holds(
      `
      def later(path):
          f = open(path)
          if path:
              return lambda: f.read()
          f.close()
      `,
      "run later",
    ),
  ],
});
