import type { Obstacle } from "./mask.js";

/** A name that is written as those of macros are. */
const NAME = String.raw`[A-Z][A-Z0-9_]{2,}|\w+_(?:API|EXPORT|DECL)|__\w+`;
const ARGUMENTS = String.raw`[ \t]*\((?:[^()]|\((?:[^()]|\([^()]*\))*\))*\)`;
/** Statements of the language that look like a call without a semicolon. */
const NO_CALLS = String.raw`(?:if|while|for|switch|catch|return|sizeof|alignas|decltype|noexcept|operator|throw)\b`;
/** Alone on its line: with arguments whatever it is called, else as macros are. */
const ALONE = new RegExp(
  String.raw`^([ \t]*)((?!${NO_CALLS})\w+${ARGUMENTS}|(?:${NAME}))[ \t]*(?:\/\/[^\n]*)?\r?$`,
  "gm",
);
/** Before a name, a type or a pointer. */
const BEFORE = new RegExp(
  String.raw`\b(?:${NAME})\b(?:\(\([^()]*\)\))?(?=[ \t\n]*[ \t\n*&~][ \t\n]*[\w*&~:]+)`,
  "g",
);
/** Between the parameters of a function and its body or end. */
const BEHIND = new RegExp(
  String.raw`(?<=\)[ \t\r\n]*(?:const[ \t\r\n]+)?)(?:${NAME})(?:${ARGUMENTS})?(?=[ \t\r\n]*(?:[{;]|=[ \t]*(?:0|default|delete)\b))`,
  "g",
);
/** Between `class` and the name of one that is defined here. */
const IN_HEAD = new RegExp(
  String.raw`(?<=\b(?:class|struct|union)[ \t\r\n]+)(?:(?:${NAME})(?:${ARGUMENTS})?|(?!${NO_CALLS})\w+${ARGUMENTS})(?=[ \t\r\n]+\w+(?:<[^;{}]*>)?(?:[ \t\r\n]+(?:final|${NAME}))?[ \t\r\n]*(?:\{|:[^:]))`,
  "g",
);
/** In the brackets of a pointer to a function. */
const IN_POINTER = new RegExp(String.raw`(?<=\([ \t]*)(?:${NAME})(?=[ \t]*\*[ \t]*\w+[ \t]*\))`, "g");
/** Words of the language that do not make the next word a name. */
const KEYWORDS =
  /^(const|static|unsigned|signed|return|new|typedef|extern|inline|virtual|volatile|constexpr|case|goto|else|delete|throw|public|private|protected|struct|enum|union|typename|template|using|namespace|do|operator|friend|register|mutable|explicit)$/;

/** So far is looked around for what stands beside a macro. */
const FAR = 2000;

/** Macro calls that stand where a declaration or a statement would, and have no semicolon. */
function alone(text: string): Obstacle[] {
  return [...text.matchAll(ALONE)].flatMap(({ 0: line, 1: indent = "", 2: code = "", index }) => {
    const before = text.slice(Math.max(0, index - FAR), index).trimEnd();
    const after = text.slice(index + line.length, index + line.length + FAR).trimStart();
    const lastLine = before.slice(before.lastIndexOf("\n") + 1).trimStart();
    const beginsHere = /^$|[;{}:)\]]$|\*\/$/.test(before.slice(-2)) || /^(#|\/\/)/.test(lastLine);
    const goesOn = /^[{=,)\].?:+*/%<>|&;-]/.test(after) || (after.startsWith("}") && !code.endsWith(")"));
    if (!beginsHere || before.endsWith("\\") || goesOn) return [];
    const start = index + indent.length;
    return [obstacle(start, start + code.length, code)];
  });
}

/** Macros that stand before a name, between a type and a name, or behind `class`, and say how it is compiled. */
function before(text: string): Obstacle[] {
  return [...text.matchAll(BEFORE)].flatMap(({ 0: name, index }) => {
    const ahead = /(\w+|[*&>])[ \t]*$/.exec(text.slice(Math.max(0, index - 80), index))?.[1] ?? "";
    const behind = /^[ \t\n]*(\w+)([ \t\n]*[*&])*[ \t\n]*(\w?)/.exec(
      text.slice(index + name.length, index + name.length + 120),
    );
    const isTwoMore = behind !== null && behind[3] !== "";
    const follows = ahead === "class" || (ahead !== "" && !KEYWORDS.test(ahead));
    return follows || isTwoMore ? [obstacle(index, index + name.length, name, true)] : [];
  });
}

function obstacle(start: number, end: number, code: string, isMark = false): Obstacle {
  const what = `the macro \`${/^\w+/.exec(code)![0]}\``;
  return { start, end, masks: [{ start, end, what, isMark, whole: { start, end } }] };
}

/** What may be a macro that the parser cannot read. */
export function macros(text: string): Obstacle[] {
  const found = alone(text);
  const lines = new Set<number>();
  for (const { start, end } of found) for (let at = start; at < end; at++) lines.add(at);
  const taken = ({ start }: Obstacle): boolean => lines.has(start);
  const marks = [BEHIND, IN_HEAD, IN_POINTER].flatMap((form) =>
    [...text.matchAll(form)].map(({ 0: code, index }) => obstacle(index, index + code.length, code, true)),
  );
  const heads = new Set(marks.map(({ start }) => start));
  const ahead = before(text).filter(({ start }) => !heads.has(start));
  return [...found, ...[...ahead, ...marks].filter((one) => !taken(one))];
}
