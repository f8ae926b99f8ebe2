import { holes, ofKind, rule, trialsIn } from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";

const { declared } = holes({ declared: { kind: "statement", node: "enum_declaration" } });
const ts = trialsIn("typescript");

/** The members with their values, as an object has them; undefined where a value is worked out. */
function valuesOf(node: SyntaxNode): string[] | undefined {
  const lines: string[] = [];
  let next = 0;
  for (const part of node.child("body")?.parts ?? []) {
    const name = (part.child("name") ?? part).text;
    const value = part.is("enum_assignment") ? part.child("value") : undefined;
    if (value && !value.is(["string", "number"])) return undefined;
    if (value?.is("number")) next = Number(value.text);
    lines.push(`${name}: ${value?.text ?? next}`);
    next++;
  }
  return lines;
}

function adviceFor(match: Match): string {
  const node = match.the(declared);
  const name = node.child("name")!.text;
  const values = valuesOf(node);
  const isNumbered = values?.some((one) => /: -?[\d.]+$/.test(one)) === true;
  const lost = isNumbered
    ? `; code that reads names by numbers, as in \`${name}[0]\`, needs a table of its own`
    : "";
  return values
    ? `Write \`const ${name} = { ${values.join(", ")} } as const; type ${name} = (typeof ${name})[keyof typeof ${name}];\`${lost}.`
    : `Write \`${name}\` as an object with \`as const\`, and a type of its values.`;
}

export const enumAdvice = rule({
  id: "javascript/enum-advice",
  kind: "smell",
  title: "Replace an enum by an object and the type of its values",
  why: "An enum is code of its own that compilers which only strip types cannot run, and its numbers take any number.",
  taste: true,
  was: ofKind(declared, { when: (node) => !node.parent?.is("ambient_declaration") }),
  mentions: ["enum"],
  advice: adviceFor,
  trials: [
    ts.reports("enum Kind { Heather, Clover = 5, Lime }", "{ Heather: 0, Clover: 5, Lime: 6 } as const"),
    ts.reports("export enum Kind { Heather = 'h' }", "Write `const Kind = { Heather: 'h' } as const"),
    ts.reports("const enum Kind { A = 1 << 2 }", "Write `Kind` as an object"),
    ts.reports("enum Kind { A = -1, B }", "Write `Kind` as an object"),
    ts.ignores("declare enum Kind { A }"),
    ts.ignores("const Kind = { A: 0 } as const;"),
  ],
});
