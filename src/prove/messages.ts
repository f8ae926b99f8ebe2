import { stripVTControlCharacters } from "node:util";
/** What a compiler, a checker or an interpreter complains of. */
export interface Message {
  /** As it is written in the message, without the folder of the copy; undefined where none is named. */
  readonly file?: string;
  /** Counted from 1. */
  readonly line?: number;
  readonly isError: boolean;
  readonly text: string;
}

/**
 * The forms of messages on one line, most telling first: `file(line,column): error text`, which the compilers of TypeScript
 * and C# write; `file:line:column - error text`, TypeScript for people; `file:line: error: text`, which those of C, C++ and
 * Java and many checkers write; `Parse error: text in file on line n`, PHP; `file.rb:line: text`, Ruby; and those without a
 * place.
 */
const FORMS: readonly RegExp[] = [
  /^(?<file>[^\s(][^(]*)\((?<line>\d+)(?:,\d+){0,3}\)\s*:\s*(?<severity>(?:fatal )?error|warning)\s+(?<text>\S.*)$/,
  /^(?<file>\S[^:]*):(?<line>\d+):\d+ - (?<severity>error|warning) (?<text>.*)$/,
  /^(?<file>[^\s:][^:]*):(?<line>\d+):(?:\d+:)?\s*(?<severity>fatal error|error|warning|note):\s*(?<text>.*)$/,
  /^(?:PHP )?(?<severity>Parse error|Fatal error|Warning|Deprecated|Notice):\s+(?<text>.*) in (?<file>\S.*) on line (?<line>\d+)$/,
  /^(?:.*: )?(?<file>[^\s:]+\.rb):(?<line>\d+):\s*(?<severity>warning)?:?\s*(?<text>(?:syntax error|.*\(SyntaxError\)|(?<=warning: ).*).*)$/,
  /^(?<severity>error|warning)\s+(?<text>[A-Z]+\d+:.*)$/,
  /^.*(?<text>undefined reference to .*)$/,
  /^[\w+.-]+: (?<severity>fatal error|error): (?<text>.*)$/,
];
/** Lines that say more of a message of the Java compiler. */
const MORE = /^\s+(?:symbol|location|required|found|reason):/;
const PYTHON_PLACE = /^\s*File "(?<file>[^"]+)", line (?<line>\d+)/;
const PYTHON_ERROR = /^(?:Sorry: )?(?<text>(?:[\w.]+\.)?\w*(?:Error|Exception|Warning)\b.*)$/;

/** Finds the messages in what a command printed; `own` is a form of the project's own, and then the only one. */
export function messagesIn(printed: string, own?: RegExp): Message[] {
  const found: Message[] = [];
  let place: { readonly file: string; readonly line: number } | undefined;
  for (const raw of stripVTControlCharacters(printed).split("\n")) {
    const line = raw.trimEnd();
    const last = found.at(-1);
    if (own) {
      const match = own.exec(line);
      if (match?.groups) found.push(messageOf(match.groups));
      continue;
    }
    const python = PYTHON_PLACE.exec(line)?.groups;
    if (python) {
      place = { file: python["file"]!, line: Number(python["line"]) };
      continue;
    }
    const raised = place && PYTHON_ERROR.exec(line)?.groups;
    if (place && raised) {
      found.push({ ...place, isError: !/Warning\b/.test(raised["text"]!), text: raised["text"]! });
      place = undefined;
      continue;
    }
    const groups = FORMS.map((form) => form.exec(line)?.groups).find((match) => match !== undefined);
    if (groups) {
      const message = messageOf(groups);
      // A note speaks of the error before it: where a macro is used, and not where it is written, there is its place.
      if (groups["severity"] !== "note") found.push(message);
      else if (last && /^in expansion of macro/.test(message.text))
        found[found.length - 1] = { ...message, isError: last.isError, text: last.text };
    } else if (last && MORE.test(line)) {
      found[found.length - 1] = { ...last, text: `${last.text}; ${line.trim().replace(/\s+/g, " ")}` };
    }
  }
  return found;
}

function messageOf(groups: Readonly<Record<string, string | undefined>>): Message {
  const { file, line, severity, text = "" } = groups;
  return {
    ...(file === undefined ? {} : { file: file.replace(/^\.\//, "") }),
    ...(line === undefined ? {} : { line: Number(line) }),
    isError: !/^(warning|deprecated|notice)/i.test(severity ?? ""),
    // The project's file that a build tool names behind the text.
    text: text.replace(/ \[[^\]]+proj\]$/, ""),
  };
}

/** The messages of `now` that `before` does not have, by file and text, each as often as it is there. */
export function newMessages(before: readonly Message[], now: readonly Message[]): Message[] {
  const counts = new Map<string, number>();
  const keyOf = ({ file, isError, text }: Message): string => JSON.stringify([file, isError, text]);
  for (const message of before) counts.set(keyOf(message), (counts.get(keyOf(message)) ?? 0) + 1);
  return now.filter((message) => {
    const left = counts.get(keyOf(message)) ?? 0;
    counts.set(keyOf(message), left - 1);
    return left <= 0;
  });
}

/** A place that a stack trace or a message names, in any form that has a path and a line. */
export interface Place {
  readonly file: string;
  readonly line: number;
  /** What is said of it, for people, where that is known. */
  readonly says?: string;
}

const PLACES = [
  /File "(?<file>[^"\n]+)", line (?<line>\d+)/g,
  /(?<file>[^\s:"'()[\]]+\.\w{1,5})(?::|\()(?<line>\d+)/g,
  /\bin (?<file>\S+) on line (?<line>\d+)/g,
];

/** All places that some printed text names. */
export function placesIn(printed: string): Place[] {
  const clean = stripVTControlCharacters(printed);
  return PLACES.flatMap((form) =>
    [...clean.matchAll(form)].map(({ groups }) => ({
      file: groups!["file"]!,
      line: Number(groups!["line"]),
    })),
  );
}
