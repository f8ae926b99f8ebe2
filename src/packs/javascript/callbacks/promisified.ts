import { no, originOf, referencesAt, unknown, yes } from "../../../core.js";
import type { Answer, SyntaxNode } from "../../../core.js";

/**
 * Modules of Node whose functions `promisify` turns into ones that give what their callback gets. Those of other modules may
 * have a form of their own, which gives an object of two values, or take a callback that gets no error.
 */
const PLAIN: ReadonlySet<string> = new Set(["crypto", "zlib"]);
const OTHER: ReadonlySet<string> = new Set(["child_process", "dns", "fs", "readline", "stream", "timers"]);

/** Does `promisify` give for a function what its callback would have got? */
export function isErrorFirst(callee: SyntaxNode): Answer {
  const code = "value.result";
  const name = `\`${callee.text}\``;
  const origin = originOf(callee);
  if (!origin) {
    const to = referencesAt(callee).find((one) => !one.member)?.to;
    const isHere = to !== undefined && to.as !== "parameter" && to.as !== "import";
    const more = isHere ? severalValues(to.at[0]!) : undefined;
    if (more) return no(code, `${name} gives its callback more than one value`, more);
    return isHere
      ? yes(code, `${name} is a function of this file`, to.at[0])
      : unknown(code, `where ${name} comes from is not known`, callee);
  }
  const module = origin.module.replace(/^node:/, "");
  const isOther = OTHER.has(module) || origin.name === "generateKeyPair";
  if (PLAIN.has(module) && !isOther)
    return yes(code, `${name} of \`${module}\` gives its error or one value`, callee);
  if (isOther)
    return no(code, `\`promisify\` of ${name} can give something else than the callback gets`, callee);
  return unknown(
    code,
    `${name} comes from \`${origin.module}\`, and may give two values or have a form of its own`,
    callee,
  );
}

/** Where a function of this file gives its callback an error and more than one value, of which a promise would have the first. */
function severalValues(declared: SyntaxNode): SyntaxNode | undefined {
  const around = declared.parent;
  const fn = around?.is("variable_declarator") ? around.child("value") : around;
  const callback = fn?.child("parameters")?.lastPart;
  if (!fn?.child("body") || !callback?.is("identifier")) return undefined;
  return fn
    .child("body")!
    .mentions(callback.text)
    .find(({ parent, field }) => {
      const list =
        parent?.is("call_expression") && field === "function" ? parent.child("arguments") : undefined;
      return (list?.parts.length ?? 0) > 2 || list?.parts.some((part) => part.is("spread_element")) === true;
    });
}
