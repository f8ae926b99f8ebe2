/** The head of a method or constructor, read from its text, since it may stand in another file. */
export interface Head {
  readonly name: string;
  /** The types of its parameters, without names and modifiers; `String...` for the last of a variable number. */
  readonly types: readonly string[];
  readonly isGeneric: boolean;
  readonly hasBody: boolean;
}

const MODIFIERS =
  /^(?:(?:public|protected|private|static|final|abstract|default|synchronized|native|strictfp)\s+)*/;

/** Reads the head of a method or constructor. */
export function headOf(text: string): Head {
  const plain = text
    .replace(/\/\*.*?\*\/|\/\/[^\n]*/gs, " ")
    .replace(/@(?!interface)[\w.]+(\s*\([^()]*\))?\s*/g, "")
    .trim();
  const open = plain.indexOf("(");
  const name = /([\w$]+)\s*$/.exec(plain.slice(0, open))?.[1] ?? "";
  const parameters = listFrom(plain.slice(open + 1));
  const types = parameters.map((one) =>
    one
      .replace(/\bfinal\s+/g, "")
      .replace(/\s*[\w$]+\s*$/, "")
      .trim(),
  );
  return {
    name,
    types,
    isGeneric: plain.replace(MODIFIERS, "").startsWith("<"),
    hasBody: !plain.endsWith(";"),
  };
}

/** What stands between commas, up to the bracket that ends the list. */
function listFrom(text: string): string[] {
  const found: string[] = [];
  let depth = 0;
  let current = "";
  for (const letter of text) {
    if (letter === ")" && depth === 0) break;
    if ("<([".includes(letter)) depth++;
    if (">)]".includes(letter)) depth--;
    if (letter === "," && depth === 0) {
      found.push(current);
      current = "";
    } else current += letter;
  }
  return current.trim() === "" ? found : [...found, current];
}
