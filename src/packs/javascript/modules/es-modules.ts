import { condition, holes, no, ofKind, rule, surroundingsOf, Together, unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxTree } from "../../../core.js";
import { type Moved, packageLedBy, type Refused, type Verdict, verdictOn } from "./package.js";
import { trials } from "./trials.js";

const { file } = holes({ file: { kind: "statement", node: "program" } });

const known = new WeakMap<SyntaxTree, Verdict | false>();

/** What becomes of the package of a file; false for a file at which no package is looked at. */
function verdictAt(tree: SyntaxTree): Verdict | false {
  let found = known.get(tree);
  if (found === undefined) known.set(tree, (found = workedOut(tree)));
  return found;
}

function workedOut(tree: SyntaxTree): Verdict | false {
  const owner = packageLedBy(tree);
  const { files, path } = surroundingsOf(tree);
  const there = files?.at?.(path);
  // What changes have made of the file says nothing of the package as it stands.
  const isAsItStands = there === undefined || there.text === tree.text;
  return (owner && isAsItStands && verdictOn(owner, tree)) ?? false;
}

const verdict = ({ tree }: Match): Verdict => verdictAt(tree) as Verdict;

/** So many other places that stand against it are named. */
const MOST_PLACES = 5;

function refusal({ refused, others }: Refused): Answer {
  const { code, why, at } = refused;
  const rest = others.length - MOST_PLACES;
  const places = others.slice(0, MOST_PLACES).join(", ") + (rest > 0 ? ` and ${rest} more` : "");
  return no(code, others.length > 0 ? `${why}; more stands against it at ${places}` : why, at);
}

export const esModules = rule({
  id: "javascript/es-modules",
  kind: "idiom",
  title: "Make ES modules of a package's files",
  why: "ES modules are read by every engine and tool of today, and say what they need and give before any code runs.",
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
        const [first] = (verdict(match) as Moved).possible;
        return first ?? yes("flow.order", "the files can be loaded before any of their code runs");
      },
      { unknownIs: "possible" },
    ),
    condition("what starts the package and what loads it can go on as before", (match) => {
      const [first] = (verdict(match) as Moved).likely;
      return first ?? unknown("name.other-uses", "code outside of the project was not looked at");
    }),
  ],
  cautions: (match) => {
    const { likely, possible } = verdict(match) as Moved;
    return [...possible.slice(1), ...likely.slice(1)].map(({ evidence }) => evidence);
  },
  uses: (match) => new Together((verdict(match) as Moved).files),
  trials,
});
