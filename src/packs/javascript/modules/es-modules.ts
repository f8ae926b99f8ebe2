import { condition, holes, no, ofKind, rule, surroundingsOf, Together, unknown, yes } from "../../../core.js";
import type { Answer, Match, SourceFiles, SyntaxTree } from "../../../core.js";
import { packageLedBy } from "./packages.js";
import { trials } from "./trials.js";
import { type Moved, type Refused, type Verdict, verdictOn } from "./verdict.js";

const { file } = holes({ file: { kind: "statement", node: "program" } });

/** By the files of a project, which are other ones as soon as any of them changes. */
const known = new WeakMap<SourceFiles, WeakMap<SyntaxTree, Verdict | false>>();

/** What becomes of the package that a file leads; false for any other file, and for a package with nothing to change. */
function verdictAt(tree: SyntaxTree): Verdict | false {
  const owner = packageLedBy(tree);
  const { files, path } = surroundingsOf(tree);
  if (!owner || !files) return false;
  // What changes have made of the file says nothing of the package as it stands.
  const there = files.at?.(path);
  if (there !== undefined && there.text !== tree.text) return false;
  let verdicts = known.get(files);
  if (!verdicts) known.set(files, (verdicts = new WeakMap()));
  let found = verdicts.get(tree);
  if (found === undefined) verdicts.set(tree, (found = verdictOn(owner, tree) ?? false));
  return found;
}

const verdict = ({ tree }: Match): Verdict => verdictAt(tree) as Verdict;
const moved = (match: Match): Moved => verdict(match) as Moved;

/** So many other places that stand against it are named. */
const MOST_PLACES = 5;

function refusal({ refused, others }: Refused): Answer {
  const { code, why, at } = refused;
  const rest = others.length - MOST_PLACES;
  const places = others.slice(0, MOST_PLACES).join(", ") + (rest > 0 ? ` and ${rest} more` : "");
  return no(code, others.length > 0 ? `${why}; other obstacles: ${places}` : why, at);
}

export const esModules = rule({
  id: "javascript/es-modules",
  kind: "idiom",
  title: "Move a package to ES modules",
  why: "Engines and tools of today are made for ES modules: what a file imports and exports is known before its code runs.",
  taste: true,
  once: true,
  target: "2020",
  was: ofKind(file, { when: ({ tree }) => verdictAt(tree) !== false }),
  given: [
    condition("every file of the package can be a module", (match) => {
      const found = verdict(match);
      return "refused" in found ? refusal(found) : found.says;
    }),
    condition(
      "nothing that happens while the files are loaded depends on their order",
      (match) => {
        const [first] = moved(match).doubts.possible;
        return first ?? yes("flow.order", "the files can be loaded before any of their code runs");
      },
      { unknownIs: "possible" },
    ),
    condition("what starts the package and what loads it can go on as before", () =>
      unknown("name.other-uses", "code outside of the project was not looked at"),
    ),
  ],
  cautions: (match) => {
    const { likely, possible } = moved(match).doubts;
    return [...possible.slice(1), ...likely].map(({ evidence }) => evidence);
  },
  uses: (match) => new Together(moved(match).files),
  trials,
});
