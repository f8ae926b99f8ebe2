import { commaParts } from "../../family/comma-parts.js";

/** The head of a method or constructor, read from its text, since it may stand in another file. */
export interface Head {
  readonly name: string;
  /** The types of its parameters, without names and modifiers; `String...` for the last of a variable number. */
  readonly types: readonly string[];
  readonly isGeneric: boolean;
  readonly hasBody: boolean;
  /** Does it throw what its own type parameters stand for: `<X extends Exception> void f() throws X`? */
  readonly throwsParameter: boolean;
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
  const parameters = commaParts(plain.slice(open + 1));
  const types = parameters.map((one) =>
    one
      .replace(/\bfinal\s+/g, "")
      .replace(/\s*[\w$]+\s*$/, "")
      .trim(),
  );
  const own = plain.replace(MODIFIERS, "");
  const generic = own.startsWith("<") ? own.slice(1, own.indexOf("(")) : "";
  const typeParameters = commaParts(generic).map((one) => /^[\w$]+/.exec(one)?.[0]);
  const thrown = /\)\s*throws\s+([^{;]*)/.exec(plain)?.[1] ?? "";
  return {
    name,
    types,
    isGeneric: generic !== "",
    throwsParameter: commaParts(thrown).some((one) => typeParameters.includes(one)),
    hasBody: !plain.endsWith(";"),
  };
}
