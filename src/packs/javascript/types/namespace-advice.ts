import { holes, ofKind, rule, trialsIn } from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";

const { space } = holes({ space: { kind: "statement", node: "internal_module" } });
const ts = trialsIn("typescript");

const isCode = (node: SyntaxNode): boolean => node.closest(["ambient_declaration"]) === undefined;

function adviceFor(match: Match): string {
  const node = match.the(space);
  const name = node.child("name")!.text;
  const given = (node.child("body")?.parts ?? []).flatMap((part) => {
    const declared = part.is("export_statement") ? part.child("declaration") : undefined;
    const one = declared?.child("name") ?? declared?.firstPart?.child("name");
    return one ? [`\`${one.text}\``] : [];
  });
  const what =
    given.length > 0
      ? `export ${given.slice(0, 5).join(", ")}${given.length > 5 ? " and the rest" : ""}`
      : "export what it holds";
  return `Make a module of \`${name}\`: ${what} from a file of its own, and import it as \`import * as ${name} from …\` where it is used.`;
}

export const namespaceAdvice = rule({
  id: "javascript/namespace-advice",
  kind: "smell",
  title: "Make a module of a namespace",
  why: "A namespace is code of its own that compilers which only strip types cannot run, and nothing says where its names come from.",
  was: ofKind(space, { when: isCode }),
  mentions: ["namespace", "module"],
  advice: adviceFor,
  trials: [
    ts.reports("namespace Hives { export function weigh() {} export const n = 1; }", "export `weigh`, `n`"),
    ts.reports("export namespace Hives { f(); }", "export what it holds"),
    ts.reports("namespace A { export class B {} export function c() {} }", "import * as A"),
    ts.ignores("declare module 'hives' { export const n: number; }"),
    ts.ignores("declare namespace Hives { const n: number; }"),
    ts.ignores("import * as hives from './hives';"),
  ],
});
