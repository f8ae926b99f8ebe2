import {
  condition,
  declarationOfHole,
  holes,
  javascript,
  no,
  rule,
  scoped,
  targetAllows,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Handle, Match, Rule, Snippet } from "../../core.js";
import { handleOf, releasesOf, releaseSnippet, rowsFor, wordsOfReleases } from "../family/handles.js";
import {
  declaredForLater,
  keptInPlace,
  nobodyNeedsIt,
  releasedOnce,
  releasedSooner,
  somethingBetween,
  soonerCaution,
  soonerNote,
  unprotectedIn,
  usesInside,
  type Releasing,
} from "../family/resource.js";
import { RESOURCES } from "./resources.js";

const { name, made, body } = holes({ name: "name", made: "expression", body: "statements" });
const HOLES = { name, body };

/** The ways to write a release: a function of a module may also be called by its bare name. */
function waysOf(release: string): readonly string[] {
  const bare = /^\w+\.(\w+\(handle\))$/.exec(release)?.[1];
  return bare === undefined ? [release] : [release, bare];
}

const { rewrites, holds, ignores } = trialsIn("javascript");

/** The rule for the resources of Node, and for those of a project. */
function releasedInFinallyWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("javascript", RESOURCES, own);
  const forms = releasesOf(rows).flatMap((release) =>
    waysOf(release).map((way) => ({ release, code: releaseSnippet("javascript", way, name) })),
  );
  const codeOf = (match: Match): Snippet => match.resource.release.form.code;
  const rowOf = (match: Match) => {
    const { release } = forms.find(({ code }) => code === codeOf(match))!;
    return handleOf(
      rows.filter((row) => row.release.replace(/;$/, "") === release),
      match.the(made),
    );
  };
  const releasing: Releasing = {
    unprotected: unprotectedIn,
    isUnseen: (match) => rowOf(match)?.row.unseen === true,
  };
  const isConstant = (match: Match): boolean => match.alternative === 0;
  return rule({
    id: "javascript/released-in-finally",
    kind: "idiom",
    title: "Release the resource in a finally block",
    why: "What is closed by hand stays open when something in between throws or returns early.",
    withHandles: releasedInFinallyWith,
    mentions: wordsOfReleases(rows),
    was: [javascript`const ${name} = ${made};`, javascript`let ${name} = ${made};`].map((acquire) =>
      scoped({
        name,
        made,
        body,
        acquire: [acquire],
        release: forms,
        as: "straight",
        hides: true,
        acquires: (value) => handleOf(rows, value) !== undefined,
      }),
    ),
    where: [(match) => rowOf(match) !== undefined],
    given: [
      condition("it is a resource of Node, or one that the project names", (match) => rowOf(match)!.answer),
      somethingBetween(HOLES),
      keptInPlace(HOLES),
      releasedOnce(HOLES, (use) =>
        /close/i.test(use.closest(["call_expression"])?.child("function")?.text ?? ""),
      ),
      condition("nothing that is declared meanwhile is used afterwards", (match) => {
        const later = declaredForLater(match, body);
        const isInBlock = later?.to.at[0]!.closest([
          "lexical_declaration",
          "class_declaration",
          "function_declaration",
        ]);
        return later && isInBlock
          ? no("name.scope", `\`${later.use.text}\` is used behind what becomes a block`, later.use)
          : yes("name.scope", "what is declared in the block is used only there");
      }),
      condition("an early exit leaves something to release", (match) => {
        const asked = usesInside(match, HOLES).find(({ node }) =>
          node.closest(["if_statement"])?.child("condition")?.holds(node),
        );
        return asked
          ? unknown(
              "resource.failed",
              `\`${match.textOf(name)}\` is tested here, so it may not be there`,
              asked.node,
            )
          : yes("resource.failed", "nothing asks whether it is there");
      }),
      nobodyNeedsIt(HOLES),
      releasedSooner(HOLES, releasing),
      condition("its variable belongs to this code", (match) =>
        declarationOfHole(match, name)
          ? yes("name.scope", "it is declared here")
          : unknown("name.scope", "it is declared elsewhere"),
      ),
    ],
    cautions: (match) => soonerCaution(match, HOLES, releasing),
    notes: (match) => soonerNote(match, HOLES, releasing),
    becomes: (match) => {
      const code = codeOf(match);
      if (canUse(match) && rowOf(match)!.row.scoped === "itself")
        return javascript.statement`
          await using ${name} = ${made};
          ${body}
        `;
      return isConstant(match)
        ? javascript`
            const ${name} = ${made};
            try {
              ${body}
            } finally {
              ${code};
            }
          `
        : javascript`
            let ${name} = ${made};
            try {
              ${body}
            } finally {
              ${code};
            }
          `;
    },
    trials: [
      rewrites(
        `
        import fs from "node:fs";
        function first(path) {
          const file = fs.openSync(path);
          fs.readSync(file, buffer); // the first
          fs.closeSync(file);
        }
        `,
        `
        import fs from "node:fs";
        function first(path) {
          const file = fs.openSync(path);
          try {
            fs.readSync(file, buffer); // the first
          } finally {
            fs.closeSync(file);
          }
        }
        `,
      ),
      rewrites(
        `
        import { open } from "fs/promises";
        async function first(path) {
          const file = await open(path);
          if (!path) return 1;
          await file.sync();
          await file.close();
          done();
        }
        `,
        `
        import { open } from "fs/promises";
        async function first(path) {
          const file = await open(path);
          try {
            if (!path) return 1;
            await file.sync();
          } finally {
            await file.close();
          }
          done();
        }
        `,
      ),
      trialsIn("javascript", "2026").rewrites(
        `
        import { open } from "fs/promises";
        async function first(path) {
          const file = await open(path);
          await file.sync();
          await file.close();
        }
        `,
        `
        import { open } from "fs/promises";
        async function first(path) {
          await using file = await open(path);
          await file.sync();
        }
        `,
      ),
      rewrites(
        `
        import { openSync, closeSync, readSync } from "fs";
        function first(path) {
          const file = openSync(path);
          const least = 2;
          const text = file + least;
          closeSync(file);
          return text + least;
        }
        `,
        `
        import { openSync, closeSync, readSync } from "fs";
        function first(path) {
          const least = 2;
          let text;
          const file = openSync(path);
          try {
            text = file + least;
          } finally {
            closeSync(file);
          }
          return text + least;
        }
        `,
      ),
      holds(
        `
        import fs from "fs";
        function first(path) {
          const file = fs.openSync(path);
          use(path);
          try { fs.closeSync(file); } catch (error) {}
        }
        `,
        "only the release would be left",
      ),
      holds(
        `
        import { openSync, closeSync, readSync } from "fs";
        function first(path) {
          const file = openSync(path);
          const [text] = [file + 1];
          closeSync(file);
          return text;
        }
        `,
        "behind what becomes a block",
      ),
      holds(
        `
        import { openSync, closeSync } from "fs";
        function first(path) {
          let file = openSync(path);
          file = openSync("other");
          closeSync(file);
        }
        `,
        "acquired anew",
      ),
      holds(
        `
        import { openSync, closeSync } from "fs";
        function first(path) {
          const file = openSync(path);
          if (!path) return file;
          use(path);
          closeSync(file);
        }
        `,
        "is returned",
      ),
      holds(
        `
        import { openSync, closeSync } from "fs";
        function first(path) {
          const file = openSync(path);
          setTimeout(() => use(file), 1);
          closeSync(file);
        }
        `,
        "run later",
      ),
      rewrites(
        `
        import { openSync, closeSync } from "fs";
        function first(path) {
          const file = openSync(path);
          if (!path) { closeSync(file); return; }
          use(path);
          closeSync(file);
        }
        `,
        `
        import { openSync, closeSync } from "fs";
        function first(path) {
          const file = openSync(path);
          try {
            if (!path) { return; }
            use(path);
          } finally {
            closeSync(file);
          }
        }
        `,
      ),
      holds(
        `
        import { openSync, closeSync } from "fs";
        function first(path) {
          const file = openSync(path);
          if (!path) { closeSync(file); path = 1; }
          use(path);
          closeSync(file);
        }
        `,
        "another place",
      ),
      holds(
        `
        import { openSync, closeSync } from "fs";
        closeSync(1);
        const file = openSync(path);
        closeSync(file);
        `,
        "nothing happens",
      ),
      ignores(`
        const file = openSync(path);
        use(file);
        closeSync(file);
        function openSync() {}
      `),
      ignores(`
        import { openSync, closeSync } from "fs";
        const file = openSync(path);
        try { use(file); } finally { closeSync(file); }
      `),
    ],
  });
}

/** May `using` be written, and does the block end where the code does? The parser of TypeScript does not read it yet. */
function canUse(match: Match): boolean {
  if (match.tree.language.id !== "javascript" || !targetAllows("2026", match)) return false;
  const last = match.nodes.at(-1)!;
  return last.parent?.is("statement_block") === true && last.parent.lastPart?.same(last) === true;
}

export const releasedInFinally = releasedInFinallyWith();
