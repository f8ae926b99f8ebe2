import {
  condition,
  holes,
  need,
  no,
  python,
  rule,
  scoped,
  bodyAround,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Handle, Match, Rule } from "../../core.js";
import { handleOf, releasesOf, releaseSnippet, rowsFor, wordsOfReleases } from "../family/handles.js";
import {
  failsTheSame,
  keptInPlace,
  nobodyNeedsIt,
  releasedOnce,
  releasedSooner,
  scopedCautions,
  somethingBetween,
  soonerCaution,
  soonerNote,
  unprotectedIn,
  usesOutside,
  type Releasing,
} from "../family/resource.js";
import { RESOURCES } from "./resources.js";

const { file, made, body } = holes({ file: "name", made: "expression", body: "statements" });
const HOLES = { name: file, body };

const { rewrites, ignores, holds } = trialsIn("python");

/** The rule for the resources of the standard library, and for those of a project. */
function scopedResourceWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("python", RESOURCES, own);
  const forms = releasesOf(rows).map((release) => ({
    release,
    code: releaseSnippet("python", release, file),
  }));
  const releaseOf = (match: Match): string =>
    forms.find(({ code }) => code === match.resource.release.form.code)!.release;
  const rowOf = (match: Match) =>
    handleOf(
      rows.filter(({ release }) => release === releaseOf(match)),
      match.the(made),
    );
  const releasing: Releasing = {
    unprotected: unprotectedIn,
    isUnseen: (match) => rowOf(match)?.row.unseen === true,
  };
  return rule({
    id: "python/scoped-resource",
    kind: "idiom",
    title: "Use a with block instead of releasing by hand",
    why: "What is closed by hand stays open when something in between throws or returns early.",
    withHandles: scopedResourceWith,
    mentions: wordsOfReleases(rows),
    was: scoped({
      name: file,
      made,
      body,
      acquire: [python`${file} = ${made}`],
      later: { declare: python`${file} = None`, acquire: python`${file} = ${made}` },
      release: forms,
      acquires: (value) => handleOf(rows, value) !== undefined,
    }),
    where: [(match) => rowOf(match) !== undefined],
    given: [
      condition(
        "it is a resource of the standard library, or one that the project names",
        (match) => rowOf(match)!.answer,
      ),
      somethingBetween(HOLES),
      keptInPlace(HOLES),
      releasedOnce(HOLES, (use) => {
        const access = use.parent;
        return (
          access?.is("attribute") === true &&
          /^(close|shutdown|quit|cleanup)$/.test(access.child("attribute")?.text ?? "")
        );
      }),
      condition(
        "nothing is asked of it afterwards",
        (match) => {
          const later = usesOutside(match, HOLES).find(
            ({ does, node }) => does === "read" && node.start > match.found.end,
          );
          return later
            ? no(
                "resource.used-after",
                `\`${match.textOf(file)}\` is asked something after it was released`,
                later.node,
              )
            : yes("resource.used-after", `nothing is asked of \`${match.textOf(file)}\` afterwards`);
        },
        { when: (match) => releaseOf(match) !== "handle.close()" },
      ),
      nobodyNeedsIt(HOLES),
      failsTheSame({ ...HOLES, made }),
      condition(
        "what is tested before it is released is there",
        (match) =>
          unknown(
            "resource.failed",
            `\`${match.textOf(file)}\` is tested before it is released, so it may be missing, or count as false when it is empty`,
            match.resource.release.whole,
          ),
        {
          // A file is always true, and where it was acquired in the `try`, the test asks whether it was.
          when: (match) => {
            const { release, guard } = match.resource;
            const isFile = rowOf(match)!.row.unseen === true;
            return release.tested && !isFile && (release.byTruth || guard?.acquires !== true);
          },
        },
      ),
      releasedSooner(HOLES, releasing),
      condition(
        "leaving the block fails as the release does",
        (match) =>
          unknown(
            "resource.same-release",
            "leaving the block passes over a connection that is lost, and `quit` does not",
            match.node,
          ),
        { when: (match) => rowOf(match)!.row.release === "handle.quit()" },
      ),
      condition("the variable is not shared with other functions", (match) => {
        const shared = bodyAround(match.node)
          .mentions(match.textOf(file))
          .find((use) => use.parent?.is(["global_statement", "nonlocal_statement"]));
        return shared && unprotectedIn(match).length > 0
          ? no("name.scope", "it is shared with other functions", shared)
          : yes("name.scope", "the variable belongs to this scope");
      }),
    ],
    cautions: (match) => [...soonerCaution(match, HOLES, releasing), ...scopedCautions(match, HOLES)],
    notes: (match) => soonerNote(match, HOLES, releasing),
    becomes: (match) =>
      rowOf(match)!.row.scoped === "closing"
        ? python`
          with ${need("contextlib", "closing")}(${made}) as ${file}:
              ${body}
        `
        : python`
          with ${made} as ${file}:
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
      ignores(`
      @patch(__name__ + '.open')
      def read(stand_in):
          f = open("a")
          text = f.read()
          f.close()
          return text
    `),
      ignores(`
      def keep(path):
          f = open(path)
          return f
    `),
      rewrites(
        `
      f = open("a"); f.read(); f.close()
      `,
        `
      with open("a") as f:
          f.read()
      `,
      ),
      holds(
        `
      def lines(path):
          f = open(path)
          if not path:
              return f
          f.read()
          f.close()
      `,
        "is returned",
      ),
      rewrites(
        `
      def read(path):
          f = open(path)
          if f.read(1) == "x":
              f.close()  # early
              return None
          if f.read(1) == "y": f.close(); return 0
          text = f.read()
          f.close()
          return text
      `,
        `
      def read(path):
          with open(path) as f:
              if f.read(1) == "x":
                  # early
                  return None
              if f.read(1) == "y": return 0
              text = f.read()
          return text
      `,
      ),
      holds(
        `
      def read(path):
          f = open(path)
          if f.read(1) == "x":
              f.close()
              f = None
          text = path.read()
          f.close()
          return text
      `,
        "acquired anew",
      ),
      rewrites(
        `
      def read(path):
          f = open(path)
          if f.read(1) == "x":
              f.close()
              return later(path)
          text = f.read()
          f.close()
      `,
        `
      def read(path):
          with open(path) as f:
              if f.read(1) == "x":
                  return later(path)
              text = f.read()
      `,
        "likely",
      ),
      // Handlers that ran with the file open still do.
      rewrites(
        `
      def count(path):
          f = open(path)
          n = 0
          # all of it
          try:
              n = len(f.read())
          except ValueError as error:
              print(error)
          finally:
              f.close()
          return n
      `,
        `
      def count(path):
          with open(path) as f:
              n = 0
              # all of it
              try:
                  n = len(f.read())
              except ValueError as error:
                  print(error)
          return n
      `,
      ),
      // Here they run when it is closed already.
      rewrites(
        `
      def read(path):
          f = None
          try:
              print(path)
              f = open(path)
              return f.read()
          except IOError:
              return None
          finally:
              if f:
                  f.close()
      `,
        `
      def read(path):
          try:
              print(path)
              with open(path) as f:
                  return f.read()
          except IOError:
              return None
      `,
        "likely",
      ),
      rewrites(
        `
      def read(path):
          f = None
          try:
              f = open(path)
              return f.read()
          finally:
              if f is not None:
                  try:
                      f.close()
                  except IOError:
                      pass
              print("done")
      `,
        `
      def read(path):
          try:
              with open(path) as f:
                  return f.read()
          finally:
              print("done")
      `,
        "likely",
      ),
      holds(
        `
      def read(path):
          f = open(path)
          try:
              return f.read()
          finally:
              print("done")
              f.close()
      `,
        "done in the same",
      ),
      holds(
        `
      def read(path):
          f = open(path)
          try:
              return f.read()
          finally:
              try:
                  f.close()
              except IOError:
                  print("not closed")
      `,
        "where releasing",
      ),
      // Two of them, closed in reverse.
      rewrites(
        `
      def copy(path, other):
          f = open(path)
          g = open(other, "w")
          try:
              g.write(f.read())
          finally:
              g.close()
              f.close()
      `,
        `
      def copy(path, other):
          with open(path) as f:
              with open(other, "w") as g:
                  g.write(f.read())
      `,
        "likely",
      ),
      // Not in the reverse order: `g` has no value where acquiring it fails.
      holds(
        `
      def copy(path, other):
          f = open(path)
          g = open(other, "w")
          try:
              g.write(f.read())
          finally:
              f.close()
              g.close()
      `,
        "could have no value yet",
      ),
      holds(
        `
      def read(path):
          f = open(path)
          try:
              return f.read()
          finally:
              try:
                  f.close()
              except IOError:
                  # the other side is gone
                  pass
      `,
        "a comment says why",
      ),
      // Where opening fails, the old code failed again in closing nothing.
      rewrites(
        `
      def read(path):
          try:
              f = open(path)
              return f.read()
          finally:
              f.close()
      `,
        `
      def read(path):
          with open(path) as f:
              return f.read()
      `,
        "likely",
      ),
      holds(
        `
      def read(path):
          f = open(path)
          def stop():
              f.close()
              return 1
          f.read()
          f.close()
          return stop
      `,
        "another place",
      ),
      holds(
        `
      def read(path):
          f = open(path)
          try:
              f.close()
              return 1
          except IOError:
              print(path)
          f.close()
      `,
        "another place",
      ),
      // An empty shelf counts as false, and was not closed.
      rewrites(
        `
      import shelve
      def keys(path):
          shelf = shelve.open(path)
          try:
              return list(shelf)
          finally:
              if shelf:
                  shelf.close()
      `,
        `
      import shelve
      def keys(path):
          with shelve.open(path) as shelf:
              return list(shelf)
      `,
        "likely",
      ),
      holds(
        `
      def read(paths):
          if paths:
              f = open(paths)
          f.read()
          f.close()
      `,
        "neither at the end",
      ),
      ignores(`
      from hives import open
      def read(path):
          f = open(path)
          text = f.read()
          f.close()
    `),
      rewrites(
        `
      from codecs import open
      def read(path):
          f = open(path)
          text = f.read()
          f.close()
      `,
        `
      from codecs import open
      def read(path):
          with open(path) as f:
              text = f.read()
      `,
      ),
      // quit() forgets what the server said, and leaving the block does not.
      holds(
        `
      import smtplib
      def f(host):
          s = smtplib.SMTP(host)
          s.ehlo()
          s.quit()
          return s.esmtp_features
      `,
        "after it was released",
      ),
      // A connection's own block ends a transaction and leaves the connection open.
      rewrites(
        `
      import sqlite3
      def rows(path):
          db = sqlite3.connect(path)
          try:
              return db.execute("select 1").fetchall()
          finally:
              db.close()
      `,
        `
      from contextlib import closing
      import sqlite3
      def rows(path):
          with closing(sqlite3.connect(path)) as db:
              return db.execute("select 1").fetchall()
      `,
      ),
      rewrites(
        `
      import socket as net
      def ask(host):
          s = net.create_connection((host, 80))
          s.sendall(b"x")
          s.close()
      `,
        `
      import socket as net
      def ask(host):
          with net.create_connection((host, 80)) as s:
              s.sendall(b"x")
      `,
        "likely",
      ),
      rewrites(
        `
      def first(path):
          f = open(path)
          if path:
              return f.detach()
          f.read()
          f.close()
      `,
        `
      def first(path):
          with open(path) as f:
              if path:
                  return f.detach()
              f.read()
      `,
        "likely",
      ),
      ignores(`
      from multiprocessing import Pool
      def work():
          pool = Pool()
          pool.map(len, [])
          pool.close()
    `),
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
      // Two edits of the first pass stand at one place.
      rewrites(
        `
        def copy(path, other):
            f = open(path)
            g = open(other, "w")
            # once a week
            try:
                g.write(f.read())
            finally:
                g.close()
                f.close()
        `,
        `
        def copy(path, other):
            with open(path) as f:
                # once a week
                with open(other, "w") as g:
                    g.write(f.read())
        `,
        "likely",
      ),
    ],
  });
}

export const scopedResource = scopedResourceWith();
