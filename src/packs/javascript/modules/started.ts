import type { SyntaxNode } from "../../../core.js";
import { type CodeFile, given } from "./code-file.js";
import { NotAModule } from "./not-a-module.js";

/** `require.main === module`, `!module.parent`: is the file the one that was started? */
export function isMainTest(node: SyntaxNode): boolean {
  if (node.is("unary_expression")) return node.has("!") && node.child("argument")?.text === "module.parent";
  if (!node.is("binary_expression") || !(node.has("===") || node.has("=="))) return false;
  return [node.child("left")?.text, node.child("right")?.text].sort().join() === "module,require.main";
}

/** The tests whether the file was started. Throws a NotAModule for other uses of `require.main`. */
export function mainTestsIn({ tree }: CodeFile): SyntaxNode[] {
  const mains = given("require", tree).flatMap((name) => {
    const main = name.parent;
    if (!main?.is("member_expression") || main.child("property")?.text !== "main") return [];
    if (main.parent && isMainTest(main.parent)) return [main.parent];
    throw new NotAModule(main, "`require.main` is not there in an ES module");
  });
  const parents = given("module", tree).flatMap((name) => {
    const test = name.parent?.parent;
    return test?.is("unary_expression") && isMainTest(test) ? [test] : [];
  });
  return [...mains, ...parents];
}
