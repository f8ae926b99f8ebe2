import {
  calledFromLibrary,
  isBuiltin,
  isSeenElsewhere,
  isUsedAfter,
  no,
  referencesAt,
  shortened,
  unknown,
  weakest,
  yes,
} from "../../../core.js";
import type { Answer, Sieve, Sifted, SyntaxNode } from "../../../core.js";
import { isContrary } from "../negated.js";

/** The names in code, such as those that a loop gives its items to. */
export const namesIn = (node: SyntaxNode): SyntaxNode[] =>
  [...node.descendants()].filter((one) => one.is("identifier"));

/** The names of the loop end with it from now on. */
export function endsNames({ loop, item }: Sifted): Answer {
  for (const name of namesIn(item!)) {
    const to = referencesAt(name).find((one) => one.to)?.to;
    if (!to) return unknown("name.not-resolved", `what declares \`${name.text}\` is not known`, name);
    const used = isUsedAfter(to, loop);
    if (used.is === "yes") return no("flow.used-later", used.evidence.says, used.evidence);
    if (used.is === "unknown") return used;
    const around = loop.closest(["function_definition"]);
    if (around ? !to.at.every((at) => around.holds(at)) : isSeenElsewhere(to))
      return unknown("flow.used-later", `\`${name.text}\` can be seen by other code than this`, name);
  }
  return yes("flow.used-later", "the names of the loop are not used afterwards");
}

/** What may not stand in a comprehension, or means something else there. */
export function mayStand({ loop, item, items, sieves }: Sifted, values: readonly SyntaxNode[]): Answer {
  const inside = [items, ...values, ...sieves.map(({ test }) => test)].flatMap((part) => [
    ...part.descendants(),
  ]);
  if (!item!.is(["identifier", "pattern_list", "tuple_pattern", "list_pattern"]))
    return no("form.fits", `the loop gives its items to \`${item!.text}\``, item);
  const bad = inside.find((node) => node.is(["yield", "await", "named_expression"]));
  if (bad)
    return no(
      "form.fits",
      `\`${bad.text.split("\n")[0]}\` may not stand in a comprehension, or means something else there`,
      bad,
    );
  const frame = inside.find(
    (node) =>
      node.is("call") && /^(super|locals|vars|dir|eval|exec)$/.test(node.child("function")?.text ?? ""),
  );
  if (frame) return no("name.scope", `\`${frame.text}\` asks for the function that it stands in`, frame);
  const made = inside.find((node) => node.is("lambda"));
  if (made) return no("name.scope", "a function that is made in the loop keeps the names of the loop", made);
  const above = loop.closest(["class_definition", "function_definition"]);
  if (above?.is("class_definition"))
    return no("name.scope", "a comprehension does not see the names of the class body around it", above);
  return yes("form.fits", "it may stand in a comprehension");
}

/** A test that is turned round must be the contrary. */
export function isEachContrary(sieves: readonly Sieve[]): Answer {
  return weakest([
    yes("value.result", "no test is turned round"),
    ...sieves.flatMap(({ test, isTrue }) => (isTrue ? [] : [isContrary(test)])),
  ]);
}

/** Calls that make something empty, or that new code writes, are those of the language. */
export function areBuiltin(names: readonly string[], at: SyntaxNode): Answer {
  return weakest([
    yes("name.library", "everything that is written is part of the language"),
    ...names.map((name) => isBuiltin(name, at)),
  ]);
}

/** Is a function among the arguments of a call, where it is said which: `key=f`? */
const hasFunction = (call: SyntaxNode): boolean =>
  call.child("arguments")?.parts.some((part) => part.child("name")?.text === "key") === true;

/** `StopIteration` means the end of all items where it is raised in a generator. */
export function raisesNoEnd(parts: readonly SyntaxNode[]): Answer {
  const calls = parts.flatMap((part) => [...part.descendants()].filter((node) => node.is("call")));
  const next = calls.find((call) => call.child("function")?.text === "next");
  if (next) return no("flow.throws", `\`${shortened(next.text)}\` may raise StopIteration`, next);
  // What is handed to a function of the library may be called by it.
  const open = calls.find((call) => {
    const row = calledFromLibrary(call);
    return !row || row.runs === true || hasFunction(call);
  });
  return open
    ? unknown(
        "flow.throws",
        `\`${shortened(open.text)}\` could raise StopIteration, which is another error in a generator`,
        open,
      )
    : yes("flow.throws", "nothing raises StopIteration");
}
