import { originOf } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";

/** Functions of Node that have a promise form of the same name, and give it one value. */
const FORMS: Readonly<Record<string, { in: string; names: readonly string[] }>> = {
  fs: {
    in: "promises",
    names: (
      "access appendFile chmod chown copyFile link lstat mkdir mkdtemp readFile readdir readlink realpath rename rm rmdir " +
      "stat symlink truncate unlink utimes writeFile"
    ).split(" "),
  },
  dns: { in: "promises", names: "resolve resolve4 resolve6 resolveMx resolveTxt reverse".split(" ") },
};

/** The module that a called function comes from, and its name there; undefined for a function of the project. */
export function nodeForm(callee: SyntaxNode): { of: SyntaxNode; name: string; in: string } | undefined {
  const origin = originOf(callee);
  const form = origin && FORMS[origin.module.replace(/^node:/, "")];
  const name = origin?.name?.replace(/^default\./, "");
  if (!form || name === undefined || !form.names.includes(name) || !callee.is("member_expression"))
    return undefined;
  return { of: callee.child("object")!, name, in: form.in };
}
