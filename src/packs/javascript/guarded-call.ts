import { caution, condition, copy, holes, javascript, rule, shortened, text, trialsIn } from "../../index.js";
import type { Match, Segment, Snippet, SyntaxNode } from "../../index.js";
import { optionalSteps } from "./access.js";
import { presenceTests, readOnce, sameAsMissing, type Asks } from "./presence-tests.js";

const { subject, call } = holes({
  subject: "expression",
  call: { kind: "expression", node: "call_expression" },
});
const { read } = holes({ read: "expression" });

/** What the code comes to: nothing, the read or undefined, the read or something else. */
type Shape = "statement" | "undefined" | "fallback";
interface Form {
  readonly asks: Asks;
  readonly shape: Shape;
  readonly was: Snippet;
}
const FORMS: readonly Form[] = presenceTests(subject).flatMap(({ asks, there, gone }): Form[] => [
  { asks, shape: "statement", was: javascript`if (${there}) { ${call}; }` },
  { asks, shape: "undefined", was: javascript.expression`${there} ? ${read} : undefined` },
  { asks, shape: "undefined", was: javascript.expression`${there} ? ${read} : void 0` },
  ...(asks === "truth"
    ? []
    : [{ asks, shape: "undefined" as const, was: javascript.expression`${gone} ? undefined : ${read}` }]),
]);

const formOf = (match: Match): Form => FORMS[match.alternative]!;
const longer = (match: Match): SyntaxNode => match.the(match.has(call) ? call : read);
const stepsOf = (match: Match): SyntaxNode[] => optionalSteps(match.the(subject), longer(match));

/** The read with its first step behind the subject taken safely. */
function safely(match: Match): Segment[] {
  const node = longer(match);
  const first = stepsOf(match)[0]!;
  const base = first.child("object") ?? first.child("function")!;
  const dot = first.children.find((child) => child.kind === ".");
  if (first.children.some((child) => child.kind === "?." || child.kind === "optional_chain"))
    return [copy(node.start, node.end)];
  return dot
    ? [copy(node.start, dot.start), text("?."), copy(dot.end, node.end)]
    : [copy(node.start, base.end), text("?."), copy(base.end, node.end)];
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const guardedCall = rule({
  id: "javascript/guarded-call",
  kind: "idiom",
  title: "Call and read what may be missing with ?.",
  why: "The object is written twice, once to be tested and once to be used.",
  target: "2020",
  was: FORMS.map(({ was }) => was),
  where: [
    (match) => stepsOf(match).length > 0,
    // What is assigned to or deleted is no read.
    (match) => !match.the(subject).is("this"),
    // `eval?.(code)` evaluates in another scope.
    (match) => match.textOf(subject) !== "eval",
  ],
  given: [
    condition("what is tested is read once instead of twice, and nobody notices", (match) =>
      readOnce(match.the(subject)),
    ),
    condition("the test is for being missing, and nothing else", (match) =>
      sameAsMissing(match, match.the(subject), formOf(match).asks),
    ),
  ],
  cautions: (match) => {
    const { asks } = formOf(match);
    if (sameAsMissing(match, match.the(subject), asks).is !== "unknown") return [];
    const name = shortened(match.textOf(subject));
    return asks === "truth"
      ? [
          caution(
            "value.falsy",
            `when \`${name}\` is 0, "" or false, the old code stopped and the new one goes on`,
          ),
        ]
      : [
          caution(
            "value.which-missing",
            `when \`${name}\` is ${asks === "null" ? "undefined" : "null"}, the old code failed and the new one stops`,
          ),
        ];
  },
  becomes: (match) => (formOf(match).shape === "statement" ? [...safely(match), text(";")] : safely(match)),
  trials: [
    js.rewrites("if (hive != null) { hive.open(1); }", "hive?.open(1);"),
    js.rewrites("if (done !== undefined && done !== null) done(1);", "done?.(1);"),
    js.rewrites("const q = hive != null ? hive.queen : undefined;", "const q = hive?.queen;"),
    js.rewrites("const q = hive == null ? undefined : hive.queen.age;", "const q = hive?.queen.age;"),
    js.rewrites("const q = hives != null ? hives[0] : void 0;", "const q = hives?.[0];"),
    js.rewrites("if (hive) hive.open();", "hive?.open();", "likely"),
    js.rewrites("if (this.done) { this.done(1); }", "this.done?.(1);", "likely"),
    ts.rewrites(
      "const f = (h?: string[]) => { if (h) { h.sort(); } };",
      "const f = (h?: string[]) => { h?.sort(); };",
    ),
    ts.rewrites(
      "const f = (h: string[] | null) => { if (h !== null) h.sort(); };",
      "const f = (h: string[] | null) => { h?.sort(); };",
    ),
    ts.holds("const f = (s: string) => { if (s) s.trim(); };", "would do something else"),
    ts.rewrites(
      'const f = (h?: string[]) => { if (typeof h !== "undefined") h.sort(); };',
      "const f = (h?: string[]) => { h?.sort(); };",
    ),
    js.holds('if (typeof document !== "undefined") document.open();', "may not be declared"),
    js.holds("if (next() != null) next().open();", "once instead of twice"),
    js.ignores("if (hive) { hive.open(); } else { close(); }"),
    js.ignores("if (hive) { hive.open(); n++; }"),
    js.ignores("if (hive) other.open();"),
    js.ignores("if (hive) hive.queen = 1;"),
    js.ignores("if (hive) delete hive.queen;"),
    js.ignores("const q = hive != null ? hive.queen : null;"),
    js.ignores("async function f() { if (hive) await hive.open(); }"),
    js.ignores("if (hive) new hive.Queen();"),
    js.ignores("if (tag) tag`x`;"),
    trialsIn("javascript", "2019").ignores("if (hive != null) { hive.open(1); }"),
  ],
});
