import { copy, holes, rule, text, trialsIn, typescript } from "../../../index.js";

const { type, value } = holes({ type: "type", value: "expression" });
const ts = trialsIn("typescript");

export const asAssertion = rule({
  id: "javascript/as-assertion",
  kind: "idiom",
  title: "Write a type assertion with as",
  why: "Angle brackets look like a tag, and files with tags in them cannot have them at all.",
  was: typescript.expression`<${type}>${value}`,
  becomes: (match) => {
    const { parent } = match.node;
    const whole = [
      copy(match.the(value).start, match.the(value).end),
      text(" as "),
      copy(match.the(type).start, match.the(type).end),
    ];
    // The word binds less tightly than the brackets did.
    const isTight =
      parent?.is(["binary_expression", "unary_expression", "await_expression", "spread_element"]) ?? false;
    return isTight ? [text("("), ...whole, text(")")] : whole;
  },
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
