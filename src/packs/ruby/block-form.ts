import {
  caution,
  condition,
  holes,
  ruby,
  rule,
  scoped,
  Snippet,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Handle, Rule } from "../../core.js";
import { calledIn, handleOf, rowsFor } from "../family/handles.js";
import { RESOURCES } from "./resources.js";
import { isNotAskedByName, endsNoLoop } from "./values.js";
import {
  declaresNothingForLater,
  failsTheSame,
  keptInPlace,
  nobodyNeedsIt,
  notUsedOutside,
  releasedOnce,
  releasedSooner,
  scopedCautions,
  somethingBetween,
  soonerCaution,
  soonerNote,
  unprotectedIn,
  type Releasing,
} from "../family/resource.js";

const { name, made, body } = holes({ name: "name", made: "expression", body: "statements" });
const HOLES = { name, body };

const WITH_BLOCK: Readonly<Record<string, string>> = { "File.new": "File.open" };
for (const socket of ["TCPSocket", "TCPServer", "UNIXSocket"])
  Object.assign(WITH_BLOCK, { [`${socket}.new`]: `${socket}.open` });

const { rewrites, holds, ignores } = trialsIn("ruby");

/** The rule for the resources of the standard library, and for those of a project. */
function blockFormWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("ruby", RESOURCES, own);
  const releasing: Releasing = {
    unprotected: unprotectedIn,
    isUnseen: (match) => handleOf(rows, match.the(made))?.row.unseen === true,
  };
  return rule({
    id: "ruby/block-form",
    kind: "idiom",
    title: "Use the block form to open and close",
    why: "What is closed by hand stays open when something in between raises or returns early.",
    withHandles: blockFormWith,
    mentions: ["close"],
    was: scoped({
      name,
      made,
      body,
      acquire: [ruby`${name} = ${made}`],
      later: { declare: ruby`${name} = nil`, acquire: ruby`${name} = ${made}` },
      release: [{ code: ruby`${name}.close` }, { code: ruby`${name}&.close` }],
      acquires: (value) => handleOf(rows, value) !== undefined,
    }),
    where: [
      (match) => {
        const node = match.the(made);
        return handleOf(rows, node) !== undefined && node.child("block") === undefined;
      },
    ],
    given: [
      condition("what opens it takes a block", (match) => handleOf(rows, match.the(made))!.answer),
      somethingBetween(HOLES),
      keptInPlace(HOLES),
      releasedOnce(HOLES, (use) => /^close/.test(use.parent?.child("method")?.text ?? "")),
      notUsedOutside(HOLES),
      condition("nothing that is first given a value meanwhile is used afterwards", (match) =>
        declaresNothingForLater(HOLES).ask(match),
      ),
      endsNoLoop(body),
      condition("nobody needs what the code comes to", (match) => {
        if (match.resource.guard) return yes("value.result", "the block comes to what `begin` came to");
        const last = match.nodes.at(-1)!;
        const isLast = last.parent?.lastPart?.same(last) === true;
        return isLast
          ? unknown("value.result", "the last value of the method was that of `close`, which is nil", last)
          : yes("value.result", "something else follows");
      }),
      nobodyNeedsIt(HOLES),
      failsTheSame({ ...HOLES, made, unsetIs: "missing" }),
      releasedSooner(HOLES, releasing),
      condition("nobody asks for its variables by name", (match) => isNotAskedByName(match)),
    ],
    cautions: (match) => {
      const last = match.nodes.at(-1)!;
      const isLast = !match.resource.guard && last.parent?.lastPart?.same(last) === true;
      return [
        ...soonerCaution(match, HOLES, releasing),
        ...scopedCautions(match, HOLES),
        ...(isLast
          ? [
              caution(
                "value.result",
                "where the code ends, the old result was nil, and the new one is what the block comes to",
              ),
            ]
          : []),
      ];
    },
    notes: (match) => soonerNote(match, HOLES, releasing),
    becomes: (match) => {
      const called = calledIn(handleOf(rows, match.the(made))!.row);
      const instead = WITH_BLOCK[called];
      const node = match.the(made);
      const list = node.child("arguments");
      const brackets = list?.text.startsWith("(") ? list.text : `(${list?.text ?? ""})`;
      const opened = instead === undefined ? node.text : `${instead}${brackets}`;
      return ruby`
        ${written(opened)} do |${name}|
          ${body}
        end
      `;
    },
    trials: [
      rewrites(
        `
        def read(path)
          file = File.open(path)
          begin
            file.read # all of it
          ensure
            file.close
          end
        end
        `,
        `
        def read(path)
          File.open(path) do |file|
            file.read # all of it
          end
        end
        `,
      ),
      rewrites(
        `
        def write(path)
          out = File.new(path, "w")
          out.puts "wax"
          out.close
          path
        end
        `,
        `
        def write(path)
          File.open(path, "w") do |out|
            out.puts "wax"
          end
          path
        end
        `,
      ),
      rewrites(
        `
        def write(path)
          out = File.open(path, "w")
          out.puts "wax"
          out.close
        end
        `,
        `
        def write(path)
          File.open(path, "w") do |out|
            out.puts "wax"
          end
        end
        `,
        "likely",
      ),
      holds(
        `
        def read(path)
          file = File.open(path)
          text = file.read
          file.close
          text
        end
        `,
        "behind what becomes a block",
      ),
      rewrites(
        `
        def read(path)
          text = nil
          file = File.open(path)
          text = file.read
          file.close
          text
        end
        `,
        `
        def read(path)
          text = nil
          File.open(path) do |file|
            text = file.read
          end
          text
        end
        `,
      ),
      holds(
        `
        def each(paths)
          paths.each do |path|
            file = File.open(path)
            next if file.eof?
            puts file.read
            file.close
            count
          end
        end
        `,
        "would end the block",
      ),
      holds(
        `
        def keep(path)
          file = File.open(path)
          @file = file
          file.read
          file.close
          path
        end
        `,
        "is stored",
      ),
      rewrites(
        `
        def both(path)
          file = File.open(path)
          if path
            file.close
            return
          end
          file.read
          file.close
          path
        end
        `,
        `
        def both(path)
          File.open(path) do |file|
            if path
              return
            end
            file.read
          end
          path
        end
        `,
      ),
      holds(
        `
        def both(path)
          file = File.open(path)
          if path
            file.close
          end
          file.read
          file.close
          path
        end
        `,
        "another place",
      ),
      rewrites(
        `
        def read(path)
          file = nil
          begin
            puts path
            file = File.open(path)
            file.read
          rescue IOError
            nil
          ensure
            file.close if file
          end
        end
        `,
        `
        def read(path)
          begin
            puts path
            File.open(path) do |file|
              file.read
            end
          rescue IOError
            nil
          end
        end
        `,
        "likely",
      ),
      rewrites(
        `
        def read(path)
          file = File.open(path)
          least = 1
          # all of it
          begin
            file.read(least)
          ensure
            file&.close
          end
        end
        `,
        `
        def read(path)
          File.open(path) do |file|
            least = 1
            # all of it
            file.read(least)
          end
        end
        `,
      ),
      rewrites(
        `
        def read(path)
          file = File.open(path)
          file.read
        ensure
          file.close if file
        end
        `,
        `
        def read(path)
          File.open(path) do |file|
            file.read
          end
        end
        `,
      ),
      holds(
        `
        def later(path)
          file = File.open(path)
          file.read
          file.close
          file.path
        end
        `,
        "outside",
      ),
      ignores(`
        def read(path)
          file = Hive.open(path)
          file.read
          file.close
          path
        end
      `),
      ignores(`
        def read(path)
          file = File.open(path)
          file.read
        end
      `),
    ],
  });
}

export const blockForm = blockFormWith();

/** Code as a snippet without holes. */
function written(code: string): Snippet {
  return new Snippet("ruby", [code], []);
}
