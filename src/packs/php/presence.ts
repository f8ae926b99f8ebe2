import {
  calledFromLibrary,
  caution,
  condition,
  isSideEffectFree,
  no,
  shortened,
  unknown,
  yes,
} from "../../core.js";
import type { Condition, Evidence, Match, SyntaxNode } from "../../core.js";
import { everyTest } from "../family/conditions.js";
import { asksNoObject, isObjectOrMissing, isOfPhp, isThere, isVariable } from "./values.js";

/** What is tested is read once instead of twice; an item of a plain list is there to be read, and runs no code. */
export function readOnce(): Condition {
  return everyTest("what is tested is read once instead of twice, and nobody notices", (_match, test) => {
    const { subject, key, times } = test;
    if (times === 0) return yes("effect.evaluated", "it is evaluated as often as before", subject);
    if (key) return isSideEffectFree(key);
    if (isVariable(subject)) return yes("effect.getter", `\`${subject.text}\` is a variable`, subject);
    const answer = isSideEffectFree(subject);
    return answer.is === "unknown" && subject.is("subscript_expression") ? asksNoObject(subject) : answer;
  });
}

/** What a call gives is asked for itself, and not by its name. */
function isCall({ tree, kind }: SyntaxNode): boolean {
  return tree.language.calls.includes(kind);
}

/** An object that answers for its items or properties may say otherwise to `isset` than to `??`. */
export function asksAlone(): Condition {
  return everyTest("nothing but being there or not is asked", (_match, { subject, asks }) =>
    asks === "key" || asks === "truth"
      ? yes("value.which-missing", "the new code asks for the same")
      : isCall(subject)
        ? yes("value.which-missing", "what a call gives is there to be asked", subject)
        : asksNoObject(subject),
  );
}

/** `??` and its like pass over what is not there, for which a comparison warns. */
export function whatIsReadIsThere(operator: string): Condition {
  return everyTest(
    `what is read is there, since ${operator} would pass over it in silence`,
    (_match, test) =>
      (test.asks === "missing" || test.asks === "loose") && !isCall(test.subject)
        ? isThere(test.subject)
        : yes("value.which-missing", "the old code asked for that as well"),
  );
}

/** `== null` is true for 0, "" and false as well. */
export function onlyNullIsLoose(): Condition {
  return everyTest(
    "what is loosely compared with null is an object or null",
    (match, { asks, subject }) =>
      asks === "loose"
        ? isObjectOrMissing(match, subject)
        : yes("value.which-missing", "no comparison is a loose one"),
    { unknownIs: "possible" },
  );
}

/** What a loose comparison took for null is kept by an operator that looks for null alone. */
export function keepsFalsy(match: Match): readonly Evidence[] {
  return match.tests
    .filter(({ asks, subject }) => asks === "loose" && isObjectOrMissing(match, subject).is !== "yes")
    .map(({ subject }) =>
      caution(
        "value.falsy",
        `when \`${shortened(subject.text)}\` is false, 0, "" or an empty list, the old code replaced it and the new one keeps it`,
      ),
    );
}

/** No function of the project stands in for one that asks. */
export function functionsOfPhp(): Condition {
  return everyTest("the functions are those of PHP", (match, { words }) => {
    const [called] = words.filter((word) => !/^isset$/i.test(word));
    return called === undefined
      ? yes("name.library", "no function is asked")
      : isOfPhp(called.toLowerCase(), match);
  });
}

/** A key may be there with null for its item. */
export function itemsMayBeNull(): Condition {
  return everyTest(
    "an item that is there is never null",
    (match, { asks, subject }) =>
      asks === "key"
        ? unknown(
            "value.which-missing",
            `\`${shortened(subject.text)}\` could hold null, which the old code kept`,
            match.node,
          )
        : yes("value.which-missing", "null counts as missing"),
    { unknownIs: "possible" },
  );
}

/** The case in which a test for a key differs from one for null. */
export function keepsNull(does: string): (match: Match) => readonly Evidence[] {
  return (match) =>
    match.tests.flatMap(({ asks, subject, key }) => {
      if (asks !== "key" || !key) return [];
      const item = shortened(`${subject.text}[${key.text}]`);
      return [
        caution(
          "value.which-missing",
          `when \`${item}\` is null, the old code kept it and the new one ${does}`,
        ),
      ];
    });
}

/** A parameter with `&` takes a variable, and no value that is worked out. */
export function passesValue(): Condition {
  return condition("what is called takes a value, and no variable by reference", (match) => {
    const list = match.place.parent?.is("arguments") ? match.place.parent : undefined;
    const call = match.found.isStatements ? list?.parent : undefined;
    if (!call) return yes("name.scope", "the value is passed to nothing that could write to it");
    if (calledFromLibrary(call)?.effect === "none")
      return yes("name.library", "a function of PHP only reads it", call);
    const shown = shortened(call.text);
    const own = functionCalled(call);
    if (!own) return unknown("flow.written", `\`${shown}\` could take a variable by reference`, call);
    const takes = [...own.child("parameters")!.descendants()].some((node) => node.is("reference_modifier"));
    return takes
      ? no("flow.written", `\`${shown}\` takes a variable by reference`, own)
      : yes("flow.written", `\`${shown}\` takes a value`, own);
  });
}

/** The function that a call means, where this file declares it for certain. */
function functionCalled(call: SyntaxNode): SyntaxNode | undefined {
  const name = call.is("function_call_expression") ? call.child("function")!.text.toLowerCase() : undefined;
  const { tree } = call;
  const own = tree
    .ofKinds(["function_definition"])
    .map((n) => tree.node(n))
    .filter((node) => node.child("name")?.text.toLowerCase() === name);
  const [only] = own;
  return own.length === 1 && only!.parent?.is("program") ? only : undefined;
}
