import { Snippet } from "../../../core.js";
import type { Handle, Hole, Wrapper } from "../../../core.js";

const row = (acquire: string, release: string, what: string): Handle => ({
  language: "cpp",
  acquire: `${acquire}(…)`,
  release: `${release}(handle)`,
  wrapper: {
    type: `std::unique_ptr<${what}, int (*)(${what}*)>`,
    get: "handle.get()",
    reset: "handle.reset()",
    take: "handle.reset(value)",
    include: "<memory>",
  },
});

/** Handles of the C library. */
export const RESOURCES: readonly Handle[] = [
  ...["fopen", "fdopen", "tmpfile", "fmemopen"].map((open) => row(open, "fclose", "FILE")),
  row("popen", "pclose", "FILE"),
  row("opendir", "closedir", "DIR"),
];

export const releaseIn = ({ release }: Handle): string => release.replace(/;$/, "");

/** Is the handle put into a variable whose address is given? */
export const isFilledBy = ({ acquire }: Handle): boolean => acquire.includes("&handle");

/** The function that gives a handle back, for a deleter; undefined where it is a method. */
export function deleterIn(handle: Handle): string | undefined {
  return /^([\w:]+)\(handle\)$/.exec(releaseIn(handle))?.[1];
}

/** The name of the function or the method that gives a handle back. */
export function releasedBy(handle: Handle): string | undefined {
  return /(\w+)\s*\([^()]*\)$/.exec(releaseIn(handle))?.[1];
}

/** What owns a handle of a type; undefined where the row names nothing and the release is no plain function. */
export function wrapperOf(handle: Handle, type: string): Wrapper | undefined {
  if (handle.wrapper) return handle.wrapper;
  const deleter = deleterIn(handle);
  if (deleter === undefined) return undefined;
  return {
    type: `std::unique_ptr<${type}, decltype(&${deleter})>`,
    get: "handle.get()",
    reset: "handle.reset()",
    take: "handle.reset(value)",
    include: "<memory>",
  };
}

/** Must the wrapper be told how to give back? */
export const wantsDeleter = ({ type }: Wrapper): boolean => /^std::(unique|shared)_ptr\b/.test(type);

/** Code of a row with other code in the place of `handle`, and of `value` where there is one. */
export function inPlaceOfHandle(code: string, handle: Snippet, value?: Hole): Snippet {
  const texts: string[] = [""];
  const parts: Hole[] = [];
  for (const piece of code.split(/\b(handle|value)\b/)) {
    const put = piece === "handle" ? handle : undefined;
    if (put) {
      texts[texts.length - 1] += put.texts[0]!;
      texts.push(...put.texts.slice(1));
      parts.push(...(put.parts as Hole[]));
    } else if (piece === "value" && value) {
      parts.push(value);
      texts.push("");
    } else texts[texts.length - 1] += piece;
  }
  return new Snippet("cpp", texts, parts);
}
