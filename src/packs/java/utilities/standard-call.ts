import { condition, rule, Snippet } from "../../../core.js";
import type { Match } from "../../../core.js";
import { movesAsWhole } from "./only-equal.js";
import { CALLED } from "./rows-called.js";
import { MADE } from "./rows-made.js";
import { trials } from "./trials.js";

const ROWS = [...MADE, ...CALLED].flatMap(({ was, ...row }) => was.map((pattern) => ({ ...row, pattern })));

const rowOf = ({ alternative }: Match): (typeof ROWS)[number] => ROWS[alternative]!;

const isOfObjects = ({ node }: Match): boolean => node.child("object")?.text === "Objects";

export const standardCall = rule({
  id: "java/standard-call",
  kind: "idiom",
  title: "Call the standard library instead of a utility library",
  why: "The standard library does the same by now; one library less has to be known, shipped and kept up to date.",
  target: "8",
  was: ROWS.map(({ pattern }) => pattern),
  // What can take the name of the library's class as a whole is the matter of another rule.
  where: [(match) => !isOfObjects(match) || !movesAsWhole(match.tree)],
  given: [
    condition("the standard library takes what is given", (match) => rowOf(match).takes!(match), {
      when: (match) => rowOf(match).takes !== undefined,
      unknownIs: "possible",
    }),
    condition("the standard library does the same with it", (match) => rowOf(match).doesSame!(match), {
      when: (match) => rowOf(match).doesSame !== undefined,
    }),
  ],
  becomes: (match) => {
    const { becomes } = rowOf(match);
    return becomes instanceof Snippet ? becomes : becomes(match);
  },
  trials,
});
