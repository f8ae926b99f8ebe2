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

const OUTSIDE: Readonly<Record<string, string>> = {
  ENOSPC: "there is no space left on the disk",
  EDQUOT: "there is no more space for this user on the disk",
  EROFS: "the disk can only be read",
  EACCES: "that is not allowed",
  EPERM: "that is not allowed",
  EMFILE: "too many files are open",
  ENFILE: "too many files are open",
  EIO: "the disk does not answer",
};

/** What the machine refused, in a sentence; undefined for what is no refusal of the machine. */
export function refusedByMachine(error: unknown): string | undefined {
  if (!(error instanceof Error) || !("code" in error) || typeof error.code !== "string") return undefined;
  const why = OUTSIDE[error.code];
  if (why === undefined) return undefined;
  const { syscall, path } = error as NodeJS.ErrnoException;
  const what = [syscall ?? "something was tried", path].filter((part) => part !== undefined).join(" ");
  return `${why[0]!.toUpperCase()}${why.slice(1)} (${what}: ${error.code}).`;
}
