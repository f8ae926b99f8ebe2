import { caution, condition, holes, no, php, rule, scoped, trialsIn, unknown, yes } from "../../core.js";
import type { Handle, Match, Rule, Snippet } from "../../core.js";
import { handleOf, releasesOf, releaseSnippet, rowsFor, wordsOfReleases } from "../family/handles.js";
import {
  keptInPlace,
  nobodyNeedsIt,
  releasedOnce,
  somethingBetween,
  usesInside,
} from "../family/resource.js";
import { RESOURCES } from "./resources.js";

const { name, made, body } = holes({ name: "expression", made: "expression", body: "statements" });
const HOLES = { name, body };

const { rewrites, holds, ignores } = trialsIn("php");

/** The rule for the resources of PHP, and for those of a project. */
function releasedInFinallyWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("php", RESOURCES, own);
  const forms = releasesOf(rows).map((release) => ({
    release,
    code: releaseSnippet("php", release, name),
  }));
  const codeOf = (match: Match): Snippet => match.resource.release.form.code;
  const rowOf = (match: Match) => {
    const { release } = forms.find(({ code }) => code === codeOf(match))!;
    return handleOf(
      rows.filter((row) => row.release.replace(/;$/, "") === release),
      match.the(made),
    );
  };
  return rule({
    id: "php/released-in-finally",
    kind: "idiom",
    title: "Release the resource in a finally block",
    why: "What is closed by hand stays open when something in between throws, for as long as anything refers to it.",
    // PHP closes a file when nothing refers to it any more, so many do without.
    taste: true,
    withHandles: releasedInFinallyWith,
    mentions: wordsOfReleases(rows),
    was: scoped({
      name,
      made,
      body,
      acquire: [php`${name} = ${made};`],
      release: forms,
      as: "straight",
      acquires: (value) => handleOf(rows, value) !== undefined,
    }),
    where: [(match) => match.the(name).is("variable_name") && rowOf(match) !== undefined],
    given: [
      condition("it is a resource of PHP, or one that the project names", (match) => rowOf(match)!.answer),
      somethingBetween(HOLES),
      keptInPlace(HOLES),
      releasedOnce(HOLES, (use) =>
        /close/i.test(use.closest(["function_call_expression"])?.child("function")?.text ?? ""),
      ),
      condition("an early exit leaves something to release", (match) => {
        const asked = usesInside(match, HOLES).find(({ node }) => {
          const test = node.closest(["if_statement", "while_statement"])?.child("condition");
          return test?.holds(node) === true && !/\w+\s*\(/.test(test.text);
        });
        return asked
          ? no(
              "resource.failed",
              `\`${match.textOf(name)}\` is tested here, so it may not be there to release`,
              asked.node,
            )
          : yes("resource.failed", "nothing asks whether it is there");
      }),
      condition("an exception leaves something to release", (match) =>
        unknown(
          "resource.failed",
          `when \`${match.the(made).firstPart?.text ?? ""}\` fails, it gives \`false\`, which cannot be released`,
          match.the(made),
        ),
      ),
      nobodyNeedsIt(HOLES),
    ],
    cautions: (match) => [
      caution(
        "resource.failed",
        `when \`${match.textOf(name)}\` is false and something in between throws, the release now fails as well`,
      ),
    ],
    becomes: (match) => php`
      ${name} = ${made};
      try {
          ${body}
      } finally {
          ${codeOf(match)};
      }
    `,
    trials: [
      rewrites(
        `
        <?php
        function first($path) {
            $file = fopen($path, 'r');
            $line = fgets($file); // the first
            fclose($file);
            return $line;
        }
        `,
        `
        <?php
        function first($path) {
            $file = fopen($path, 'r');
            try {
                $line = fgets($file); // the first
            } finally {
                fclose($file);
            }
            return $line;
        }
        `,
        "likely",
      ),
      holds(
        `
        <?php
        function first($path) {
            $file = fopen($path, 'r');
            work($path);
            if ($file) { fclose($file); }
        }
        `,
        "only the release would be left",
      ),
      holds(
        `
        <?php
        function first($path) {
            $file = fopen($path, 'r');
            if ($file === false) { return null; }
            $line = fgets($file);
            fclose($file);
            return $line;
        }
        `,
        "may not be there",
      ),
      rewrites(
        `
        <?php
        function first($path) {
            $file = fopen($path, 'r');
            if ($path) { fclose($file); return null; }
            $line = fgets($file);
            fclose($file);
        }
        `,
        `
        <?php
        function first($path) {
            $file = fopen($path, 'r');
            try {
                if ($path) { return null; }
                $line = fgets($file);
            } finally {
                fclose($file);
            }
        }
        `,
        "likely",
      ),
      holds(
        `
        <?php
        function first($path) {
            $file = fopen($path, 'r');
            if ($path) { fclose($file); }
            $line = fgets($file);
            fclose($file);
        }
        `,
        "another place",
      ),
      holds(
        "<?php function f() { $file = tmpfile(); $this->file = $file; g(); fclose($file); }\n",
        "is stored",
      ),
      holds(
        "<?php function f() { $file = tmpfile(); if (g()) { return $file; } fclose($file); }\n",
        "is returned",
      ),
      holds("<?php function f() { $file = tmpfile(); $file = tmpfile(); fclose($file); }\n", "acquired anew"),
      ignores("<?php function f() { $file = hive(); g($file); fclose($file); }\n"),
      ignores("<?php function f() { $file = tmpfile(); g($file); closedir($file); }\n"),
      ignores("<?php function f() { $file = tmpfile(); try { g($file); } finally { fclose($file); } }\n"),
    ],
  });
}

export const releasedInFinally = releasedInFinallyWith();
