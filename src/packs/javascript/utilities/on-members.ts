import { copy, text } from "../../../core.js";
import type { Segment, SyntaxNode } from "../../../core.js";
import { ownNodes } from "../classes/method.js";
import { parametersOf } from "../callbacks/settled.js";
import type { UtilityCall } from "./library-call.js";
import type { Native } from "./native-row.js";
import { isWritten } from "./short-forms.js";

const KEY = /^(key|k|name|id|prop|property|field|attr|attribute)$|(Key|Name|Id)$/;

/** Does a function read like one that is run for the members of an object, with their names? */
export function looksForKeys(fn: SyntaxNode): SyntaxNode | undefined {
  const second = isWritten(fn) ? parametersOf(fn)[1] : undefined;
  return second?.is("identifier") && KEY.test(second.text) ? second : undefined;
}

/** Is a function for each member one that can take a pair of key and value instead? */
function takesPair(fn: SyntaxNode): boolean {
  const parameters = isWritten(fn) ? parametersOf(fn) : [];
  const fits = parameters.every((one) => one.is(["identifier", "object_pattern", "array_pattern"]));
  const asksMore = [...ownNodes(fn)].some((one) => one.is("identifier") && one.text === "arguments");
  return fits && parameters.length >= 1 && parameters.length <= 2 && !asksMore;
}

/** A walk over the members of an object; none where its function cannot be written for that. */
export function overMembers({ args }: UtilityCall, { becomes, walks }: Native): Segment[] | undefined {
  const [object, fn] = [args[0]!, args[1]!];
  const method = typeof becomes === "function" ? undefined : /\.(\w+)\($/.exec(becomes.texts[1] ?? "")?.[1];
  if (!takesPair(fn) || walks === undefined) return undefined;
  const [value, key] = parametersOf(fn);
  const call = `.${walks === "each" ? "forEach" : method!}(`;
  const run = copy(fn.start, fn.end, key ? pairEdits(fn, value!, key) : []);
  const whole = copy(object.start, object.end);
  if (key)
    return walks === "entries"
      ? undefined
      : [text("Object.entries("), whole, text(`)${call}`), run, text(")")];
  return [text("Object.values("), whole, text(`)${call}`), run, text(")")];
}

function pairEdits(
  fn: SyntaxNode,
  value: SyntaxNode,
  key: SyntaxNode,
): { start: number; end: number; text: string }[] {
  const list = fn.child("parameters")!;
  return [{ start: list.start, end: list.end, text: `([${key.text}, ${value.text}])` }];
}
