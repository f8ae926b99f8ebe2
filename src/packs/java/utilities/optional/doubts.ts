import { shortened, unknown } from "../../../../core.js";
import type { Answer, SyntaxNode } from "../../../../core.js";

const NEVER_NULL = /^(string_literal|.*_integer_literal|true|false|object_creation_expression|this)$/;

/** What may be otherwise with the type of the standard library. The first place of each kind is named. */
export class Doubts {
  readonly #found = new Map<string, Answer>();
  /** What may not compile. */
  possible: Answer | undefined;

  get likely(): readonly Answer[] {
    return [...this.#found.values()];
  }

  #add(kind: string, answer: Answer): void {
    if (!this.#found.has(kind)) this.#found.set(kind, answer);
  }

  /** The library throws where the value to take instead is null. */
  mayBeNull(value: SyntaxNode): void {
    if (NEVER_NULL.test(value.kind)) return;
    const says = `\`${shortened(value.text)}\` could be null, for which the library throws where no value is there`;
    this.#add("default", unknown("value.null", says, value));
  }

  /** The library throws where a function gives null. */
  mayGiveNull(fn: SyntaxNode): void {
    const body = fn.is("lambda_expression") ? fn.child("body") : undefined;
    if (body && NEVER_NULL.test(body.kind)) return;
    const says = `\`${shortened(fn.text)}\` could give null, for which the library throws, and \`map\` gives no value`;
    this.#add("function", unknown("value.null", says, fn));
  }

  mayBeSupplier(value: SyntaxNode): void {
    this.possible ??= unknown(
      "type.not-known",
      `\`${shortened(value.text)}\` could be a function or an \`Optional\`, which \`orElse\` does not take`,
      value,
    );
  }

  /** A method of another library could have the name. */
  isGuessed(call: SyntaxNode): void {
    this.possible ??= unknown(
      "name.not-resolved",
      `\`${shortened(call.text)}\` could be a method of another library`,
      call,
    );
  }

  /** `get` throws another exception where no value is there. */
  catches(at: SyntaxNode): void {
    const says =
      "`get` of what is missing throws `NoSuchElementException` instead of the exception that is waited for here";
    this.#add("exception", unknown("flow.throws", says, at));
  }

  isShown(at: SyntaxNode): void {
    const says = `the text of \`${shortened(at.text)}\` is another one`;
    this.#add("text", unknown("value.result", says, at));
  }

  isPublic(member: SyntaxNode): void {
    const says = `code outside of this project may use \`${member.child("name")?.text ?? "it"}\``;
    this.#add("public", unknown("name.other-uses", says, member));
  }
}
