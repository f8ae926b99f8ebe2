import { copy, holes, ofKind, rule, text, trialsIn } from "../../../core.js";
import type { Match, Segment } from "../../../core.js";

// Files with tags in them have no such assertions, and could not even read them as a pattern.
const { assertion } = holes({ assertion: { kind: "expression", node: "type_assertion" } });
const ts = trialsIn("typescript");

function withAs(match: Match): Segment[] {
  const [type, value] = match.the(assertion).parts;
  const inner = type!.firstPart!;
  const whole = [copy(value!.start, value!.end), text(" as "), copy(inner.start, inner.end)];
  // The word binds less tightly than the brackets did.
  const isTight =
    match.node.parent?.is(["binary_expression", "unary_expression", "await_expression", "spread_element"]) ??
    false;
  return isTight ? [text("("), ...whole, text(")")] : whole;
}

export const asAssertion = rule({
  id: "javascript/as-assertion",
  kind: "idiom",
  title: "Write a type assertion with as",
  why: "Angle brackets look like a tag, and files with tags in them cannot have them at all.",
  was: ofKind(assertion),
  mentions: ["<"],
  becomes: withAs,
  trials: [
    ts.rewrites("const jar = <Jar>found;", "const jar = found as Jar;"),
    ts.rewrites("f(<Jar[]>found.all, 1);", "f(found.all as Jar[], 1);"),
    ts.rewrites("const n = (<Jar>found).age;", "const n = (found as Jar).age;"),
    ts.rewrites("const n = <number>a + 1;", "const n = (a as number) + 1;"),
    ts.rewrites("const jar = <Jar><unknown>found;", "const jar = found as unknown as Jar;"),
    ts.ignores("const same = <T>(x: T) => x;"),
    ts.ignores("const jar = found as Jar;"),
    ts.ignores("const m = new Map<Jar, number>();"),
  ],
});
