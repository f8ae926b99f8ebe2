import type { Edit } from "../rewrite/index.js";
import type { Language } from "../syntax/index.js";

/**
 * A stretch of code in one language within a file, which may be all of it. Inner offsets are those of the code,
 * outer ones those of the file; both in UTF-16 code units, lines counted from 1.
 */
export interface Region {
  readonly language: Language;
  /** The code as its language reads it, without what the file around it adds. */
  readonly text: string;
  /** Outer range of the code. */
  readonly start: number;
  readonly end: number;
  /** Is it all of the code there is? What a part of it declares, other parts of the file may use. */
  readonly isWhole: boolean;
  /** The outer line of an inner one. */
  line(inner: number): number;
  /** The edit of the file that makes an edit of the code. */
  outward(edit: Edit): Edit;
}

/** A file that is code as a whole. */
export function wholeFile(text: string, language: Language): Region {
  return {
    language,
    text,
    start: 0,
    end: text.length,
    isWhole: true,
    line: (inner) => inner,
    outward: (edit) => edit,
  };
}

/** 1-based line of an offset. */
export function lineOf(text: string, offset: number): number {
  let line = 1;
  for (let at = text.indexOf("\n"); at >= 0 && at < offset; at = text.indexOf("\n", at + 1)) line++;
  return line;
}

/** Code that stands in its file as it is, from `start` to `end`. */
export function slice(file: string, language: Language, start: number, end: number): Region {
  const before = lineOf(file, start) - 1;
  return {
    language,
    text: file.slice(start, end),
    start,
    end,
    isWhole: false,
    line: (inner) => before + inner,
    outward: (edit) => ({ ...edit, start: edit.start + start, end: edit.end + start }),
  };
}
