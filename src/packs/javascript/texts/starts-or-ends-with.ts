import { condition, holes, isSideEffectFree, javascript, rule, sameCode, trialsIn } from "../../../core.js";
import { unknown, weakest, yes } from "../../../core.js";
import type { Answer, Match, Snippet, SyntaxNode } from "../../../core.js";
import { isKnownAs, calledOn } from "../kinds.js";

const { text, part, count } = holes({ text: "expression", part: "expression", count: "expression" });

/** One way of asking, with `is` for the operator. */
interface Spelling {
  readonly was: Snippet;
  readonly asks: "startsWith" | "endsWith";
  /** `found`: the part is looked for; `cut`: that much of the text is compared; `one`: one character is. */
  readonly by: "found" | "cut" | "one" | "item";
}

const all = (asks: Spelling["asks"], by: Spelling["by"], ...snippets: Snippet[]): Spelling[] =>
  snippets.map((was) => ({ was, asks, by }));

const spelt = (is: Snippet): Spelling[] => [
  ...all(
    "startsWith",
    "found",
    javascript`${text}.indexOf(${part}) ${is} 0`,
    javascript`${text}.lastIndexOf(${part}, 0) ${is} 0`,
  ),
  ...all(
    "startsWith",
    "cut",
    javascript`${text}.slice(0, ${count}) ${is} ${part}`,
    javascript`${text}.substring(0, ${count}) ${is} ${part}`,
    javascript`${text}.substr(0, ${count}) ${is} ${part}`,
  ),
  ...all("startsWith", "one", javascript`${text}.charAt(0) ${is} ${part}`),
  ...all("startsWith", "item", javascript`${text}[0] ${is} ${part}`),
  ...all(
    "endsWith",
    "cut",
    javascript`${text}.slice(-${count}) ${is} ${part}`,
    javascript`${text}.substr(-${count}) ${is} ${part}`,
    javascript`${text}.slice(${text}.length - ${count}) ${is} ${part}`,
    javascript`${text}.substr(${text}.length - ${count}) ${is} ${part}`,
    javascript`${text}.substring(${text}.length - ${count}) ${is} ${part}`,
  ),
  ...all("endsWith", "one", javascript`${text}.charAt(${text}.length - 1) ${is} ${part}`),
  ...all("endsWith", "item", javascript`${text}[${text}.length - 1] ${is} ${part}`),
];

const ASKING = [javascript`===`, javascript`==`].flatMap(spelt);
const SPELLINGS = [...ASKING, ...[javascript`!==`, javascript`!=`].flatMap(spelt)];
const spellingOf = (match: Match): Spelling => SPELLINGS[match.alternative]!;

/** The characters of a string that is written without escapes. */
function literal(node: SyntaxNode): string | undefined {
  return node.is("string") && !node.text.includes("\\") ? node.text.slice(1, -1) : undefined;
}

/** Is exactly as much of the text compared as the part is long? */
function takesAsMuch(match: Match): boolean {
  const { by } = spellingOf(match);
  if (by === "found") return true;
  const asked = match.the(part);
  const value = literal(asked);
  if (by !== "cut") return value?.length === 1;
  const much = match.the(count);
  if (much.is("number")) return value !== undefined && value.length > 0 && Number(much.text) === value.length;
  return much.is("member_expression") && much.text.endsWith(".length") && sameCode(much.firstPart!, asked);
}

/** The part is a string, and not an empty one where that would make a difference. */
function isSamePart(match: Match): Answer {
  const { was, asks, by } = spellingOf(match);
  const asked = match.the(part);
  const value = literal(asked);
  if (value !== undefined) return yes("value.result", `\`${asked.text}\` is a string`, asked);
  const once = isSideEffectFree(asked);
  if (once.is === "no") return once;
  if (by === "cut" && asks === "endsWith" && was.texts.some((one) => one.endsWith("(-")))
    return unknown(
      "value.result",
      `\`${asked.text}\` could be empty, and what is compared would be the whole text`,
      asked,
    );
  if (isKnownAs(match, asked, "string"))
    return weakest([once, yes("value.result", `\`${asked.text}\` is a string`, asked)]);
  return unknown("value.result", `\`${asked.text}\` could be something that is no string`, asked);
}

const isNegated = (match: Match): boolean => match.alternative >= ASKING.length;

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const startsOrEndsWith = rule({
  id: "javascript/starts-or-ends-with",
  kind: "idiom",
  title: "Use startsWith and endsWith",
  why: "A piece that is cut out to be compared must have just the right length, which the reader has to count.",
  was: SPELLINGS.map(({ was }) => was),
  where: [
    takesAsMuch,
    // The first item of a list is read in the same way.
    (match) => spellingOf(match).by !== "item" || isKnownAs(match, match.the(text), "string"),
  ],
  given: [
    ...calledOn(text, ["string"]),
    condition("the text is evaluated as often, or has no side effect", (match) => {
      const [first, ...more] = spellingOf(match).was.parts.filter((one) => one === text);
      return first && more.length === 0
        ? yes("effect.evaluated", "it is evaluated as often as before")
        : isSideEffectFree(match.the(text));
    }),
    condition("the part is a string that is not empty", isSamePart),
  ],
  becomes: (match) => {
    const starts = spellingOf(match).asks === "startsWith";
    const is = starts
      ? javascript.expression`${text}.startsWith(${part})`
      : javascript.expression`${text}.endsWith(${part})`;
    const isNot = starts
      ? javascript.expression`!${text}.startsWith(${part})`
      : javascript.expression`!${text}.endsWith(${part})`;
    return isNegated(match) ? isNot : is;
  },
  trials: [
    js.rewrites('const s = "abc"; f(s.indexOf("a") === 0);', 'const s = "abc"; f(s.startsWith("a"));'),
    js.rewrites('const s = "abc"; f(0 == s.indexOf("a"));', 'const s = "abc"; f(s.startsWith("a"));'),
    js.rewrites('const s = "abc"; f(s.indexOf("a") !== 0);', 'const s = "abc"; f(!s.startsWith("a"));'),
    js.rewrites('const s = "abc"; f(s.lastIndexOf("a", 0) === 0);', 'const s = "abc"; f(s.startsWith("a"));'),
    js.rewrites('const s = "abc"; f(s.slice(0, 2) === "ab");', 'const s = "abc"; f(s.startsWith("ab"));'),
    js.rewrites('const s = "abc"; f(s.substr(0, 2) == "ab");', 'const s = "abc"; f(s.startsWith("ab"));'),
    js.rewrites('const s = "abc"; f("ab" != s.substring(0, 2));', 'const s = "abc"; f(!s.startsWith("ab"));'),
    js.rewrites('const s = "abc"; f(s.charAt(0) === "a");', 'const s = "abc"; f(s.startsWith("a"));'),
    js.rewrites('const s = "abc"; f(s[0] === "a");', 'const s = "abc"; f(s.startsWith("a"));'),
    js.rewrites('const s = "abc"; f(s[s.length - 1] === "a");', 'const s = "abc"; f(s.endsWith("a"));'),
    js.rewrites('const s = "abc"; f(s.slice(-3) === ".js");', 'const s = "abc"; f(s.endsWith(".js"));'),
    js.rewrites(
      'const s = "abc"; f(s.substr(s.length - 3) !== ".js");',
      'const s = "abc"; f(!s.endsWith(".js"));',
    ),
    ts.rewrites(
      "const f = (s: string, p: string) => s.slice(0, p.length) === p;",
      "const f = (s: string, p: string) => s.startsWith(p);",
    ),
    // For an empty part the whole text is compared.
    ts.rewrites(
      "const f = (s: string, p: string) => s.slice(-p.length) === p;",
      "const f = (s: string, p: string) => s.endsWith(p);",
      "likely",
    ),
    ts.rewrites(
      "const f = (s: string, p: string) => s.slice(s.length - p.length) === p;",
      "const f = (s: string, p: string) => s.endsWith(p);",
    ),
    js.rewrites('f(x.indexOf("a") === 0);', 'f(x.startsWith("a"));', "possible"),
    js.rewrites('const s = "abc"; f(s.indexOf(p) === 0);', 'const s = "abc"; f(s.startsWith(p));', "likely"),
    js.holds('const s = ["abc"]; f(s.indexOf("a") === 0);', "which is not a string"),
    ts.holds("const f = (s: string) => s.slice(0, next().length) === next();", "calls something"),
    js.rewrites('f(x.charAt(0) === "a");', 'f(x.startsWith("a"));', "likely"),
    js.rewrites('f(x.indexOf("a") === 0 && x.trim());', 'f(x.startsWith("a") && x.trim());', "likely"),
    js.rewrites('f(x.indexOf("a") === 0 && x.push(1));', 'f(x.startsWith("a") && x.push(1));', "possible"),
    js.ignores('f(x[0] === "a");'),
    js.ignores('const s = ["abc"]; f(s[0] === "a");'),
    js.ignores('const s = "abc"; f(s[0] === "ab");'),
    js.ignores('const s = "abc"; f(s.slice(0, 3) === "ab");'),
    js.ignores('const s = "abc"; f(s.slice(-3) === "ab");'),
    js.ignores('const s = "abc"; f(s.slice(0, q.length) === p);'),
    js.ignores('const s = "abc"; f(s.indexOf("a") > 0);'),
    js.ignores('const s = "abc"; f(s.indexOf("a", 1) === 0);'),
    js.ignores('const s = "abc"; f(s.charAt(1) === "a");'),
  ],
});
