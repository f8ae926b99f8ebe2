import { copy, stepsFrom, text, type Segment, type SyntaxNode } from "../../index.js";

/** How a language reads on from something that may be missing. */
export interface SafeStep {
  /** The token of an ordinary step, and what it is behind something that may be missing: `->` and `?->`. */
  readonly tokens: Readonly<Record<string, string>>;
  /** What stands before the bracket of an item or a call, where the language has such a form. */
  readonly beforeBracket?: (step: SyntaxNode) => string | undefined;
}

/** The first step behind `subject` in `read`, where the language can take it safely. */
function safeStep(
  subject: SyntaxNode,
  read: SyntaxNode,
  form: SafeStep,
): { at: number; end: number; put: string } | undefined {
  const [first] = stepsFrom(subject, read);
  if (!first) return undefined;
  const base = first.parts[0]!;
  const token = first.children.find(
    (child) => child.start >= base.end && form.tokens[child.text] !== undefined,
  );
  if (token) return { at: token.start, end: token.end, put: form.tokens[token.text]! };
  const put = form.beforeBracket?.(first);
  return put === undefined ? undefined : { at: base.end, end: base.end, put };
}

/** Does `read` go on from `subject` in a way that has a safe form? */
export function readsOn(subject: SyntaxNode, read: SyntaxNode, form: SafeStep): boolean {
  return safeStep(subject, read, form) !== undefined;
}

/** `read` with its first step behind `subject` taken safely. */
export function readSafely(subject: SyntaxNode, read: SyntaxNode, form: SafeStep): Segment[] {
  const step = safeStep(subject, read, form);
  if (!step) throw new RangeError(`\`${read.text}\` does not go on from \`${subject.text}\``);
  return [copy(read.start, step.at), text(step.put), copy(step.end, read.end)];
}
