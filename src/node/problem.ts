/** Something the user can put right: the message says what is wrong, where, and what to do. */
export class Problem extends Error {
  override readonly name = "Problem";

  constructor(
    message: string,
    /** 1: something asked for failed; 2: wrong use or input that cannot be read. */
    readonly exitCode: 1 | 2 = 2,
  ) {
    super(message);
  }
}

/** The message of anything that was thrown. */
export function messageOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
