import type { SyntaxNode } from "../../../core.js";

/** Functions of PHP that call what they are given and ask nothing else of it, by the place among the arguments where they take it. */
const TAKERS: readonly RegExp[] = [
  /^(?:array_map|call_user_func(?:_array)?|register_shutdown_function|header_register_callback|ob_start|set_(?:error|exception)_handler)$/i,
  /^(?:array_(?:filter|reduce|walk(?:_recursive)?)|u[ak]?sort|preg_replace_callback|iterator_apply|pcntl_signal)$/i,
];

/** The call of a function of that kind that takes a value, and the name that the function has if it is PHP's own. */
export function callableTaker(value: SyntaxNode): { call: SyntaxNode; name: string } | undefined {
  const argument = value.parent?.is("argument") ? value.parent : value;
  const list = argument.parent;
  const call = list?.is("arguments") ? list.parent : undefined;
  if (!list || !call?.is("function_call_expression") || argument.child("name") !== undefined)
    return undefined;
  const name = (call.child("function")?.text ?? "").replace(/^\\/, "");
  const place = list.parts.findIndex((part) => part.same(argument));
  return TAKERS[place]?.test(name) ? { call, name } : undefined;
}
