import {
  csharp,
  filled,
  holes,
  isMember,
  referencesAt,
  rule,
  shapeOf,
  trialsIn,
  versionVerdict,
} from "../../core.js";
import type { Match } from "../../core.js";
import { testedOnce } from "../family/conditions.js";
import { asksForNull } from "./values.js";

const { place, value } = holes({
  place: {
    kind: "expression",
    node: ["identifier", "member_access_expression", "element_access_expression"],
  },
  value: "expression",
});

/**
 * Below C# 8 the variable is named twice, and written where it has a value too, which nobody sees of a plain one. Not where the
 * code says it so already.
 */
function needsOlderForm(match: Match): boolean {
  const node = match.the(place);
  if (shapeOf(match.node)?.is !== "branch" || !versionVerdict([{ since: "8.0" }], match)?.isTooOld)
    return false;
  const to = node.is("identifier") ? referencesAt(node).find(({ to: one }) => one)?.to : undefined;
  return to !== undefined && (!isMember(to) || to.at[0]!.closest(["field_declaration"]) !== undefined);
}

const { rewrites, ignores, holds } = trialsIn("csharp", "8");
const older = trialsIn("csharp", "7.3");

export const assignedIfMissing = rule({
  id: "csharp/assigned-if-missing",
  kind: "idiom",
  title: "Use ??= to assign a value that is null",
  why: "What is filled in is written twice, and the reader must check that both are the same.",
  was: filled(place, value, { or: ["value"] }),
  given: [testedOnce(), asksForNull()],
  becomes: (match) =>
    needsOlderForm(match)
      ? csharp.expression`${place} = ${place} ?? ${value}`
      : csharp.expression`${place} ??= ${value}`,
  trials: [
    rewrites(
      'class A { string n; void F() { if (n == null) n = ""; } }',
      'class A { string n; void F() { n ??= ""; } }',
    ),
    rewrites(
      "class A { List<int> n; void F() { if (n is null) { n = new List<int>(); } } }",
      "class A { List<int> n; void F() { n ??= new List<int>(); } }",
    ),
    rewrites(
      `
      class A {
          object F() {
              if (this.all == null) {
                  // read once
                  this.all = Read();
              }
              return this.all;
          }
      }
      `,
      `
      class A {
          object F() {
              // read once
              this.all ??= Read();
              return this.all;
          }
      }
      `,
      "likely",
    ),
    rewrites("class A { void F(Q x) { x = x ?? y; } }", "class A { void F(Q x) { x ??= y; } }"),
    rewrites(
      "class A { int? n; void F() { if (!n.HasValue) n = 1; } }",
      "class A { int? n; void F() { n ??= 1; } }",
    ),
    rewrites(
      "class A { Q n; void F() { if (ReferenceEquals(n, null)) n = G(); } }",
      "class A { Q n; void F() { n ??= G(); } }",
    ),
    holds(
      "class A { Q n; bool ReferenceEquals(object a, object b) { return true; } void F() { if (ReferenceEquals(n, null)) n = G(); } }",
      "of its own",
    ),
    holds("class A { void F() { if (a[Next()] == null) a[Next()] = 1; } }", "is not a plain read"),
    holds("class A { void F() { if (n == null) n = 1; else m = 2; } }", "is done as well"),
    holds("class A { void F() { if (n == null) { n = 1; m = 2; } } }", "is done as well"),
    ignores("class A { void F() { if (n == null) m = 1; } }"),
    ignores("class A { void F() { if (n != null) n = 1; } }"),
    ignores("class A { void F() { if (n == null) n += 1; } }"),
    ignores("class A { void F() { x = y ?? x; } }"),
    older.rewrites(
      'class A { string n; void F() { if (n == null) n = ""; } }',
      'class A { string n; void F() { n = n ?? ""; } }',
    ),
    older.ignores("class A { void F(Q x) { x = x ?? y; } }"),
    older.ignores('class A { A a; string n; void F() { if (a.n == null) a.n = ""; } }'),
    older.ignores('class A { string N { get; set; } void F() { if (N == null) N = ""; } }'),
    trialsIn("csharp").holds(
      'class A { string n; void F() { if (n == null) n = ""; } }',
      "the new code needs C# 8.0 (`??=`), and nothing says which version",
    ),
  ],
});
