import { copy, text } from "../../../core.js";
import type { Segment, SyntaxNode } from "../../../core.js";

/** What a switch expression asks, as it stands ahead of `switch`: in parentheses where it is more than a name or a call. */
export function asSubject(subject: SyntaxNode): Segment[] {
  const own = copy(subject.start, subject.end);
  return subject.is([
    "identifier",
    "member_access_expression",
    "invocation_expression",
    "element_access_expression",
  ])
    ? [own]
    : [text("("), own, text(")")];
}
