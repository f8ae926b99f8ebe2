import type { SyntaxNode } from "../../syntax/index.js";
import { MISSING, NULL, numberValue, textValue, type Value } from "./value.js";

/** The value of an expression that is written out in JavaScript, TypeScript or Python; undefined where it is computed. */
export function literalOf(node: SyntaxNode): Value | undefined {
  switch (node.kind) {
    case "undefined":
      return MISSING;
    case "null":
    case "none":
      return NULL;
    case "true":
      return { is: "boolean", of: true };
    case "false":
      return { is: "boolean", of: false };
    case "number":
    case "integer":
    case "float": {
      const number = Number(node.text.replaceAll("_", ""));
      return Number.isNaN(number) ? undefined : numberValue(number);
    }
    case "unary_expression":
    case "unary_operator": {
      const inner = /^-\s*[\d.]/.test(node.text) ? Number(node.text.replace(/\s/g, "")) : NaN;
      return Number.isNaN(inner) ? undefined : numberValue(inner);
    }
    case "string":
      return textOf(node.text);
    case "array":
    case "list":
    case "tuple":
      return allOf(node.parts.map(literalOf));
    case "object":
    case "dictionary":
      return tableOf(node);
    default:
      return undefined;
  }
}

function textOf(code: string): Value | undefined {
  const match = /^(["'])([\s\S]*)\1$/.exec(code);
  if (!match || /^(["'])\1{2}/.test(code)) return undefined;
  const inner = match[2]!.replace(
    /\\(?:([nrt0\\'"])|x([0-9a-f]{2})|u([0-9a-f]{4}))/gi,
    (whole, simple: string, ...hex: string[]) => {
      const code = hex[0] ?? hex[1];
      if (code !== undefined) return String.fromCharCode(parseInt(code, 16));
      return { n: "\n", r: "\r", t: "\t", "0": "\0" }[simple] ?? simple ?? whole;
    },
  );
  return textValue(inner);
}

function allOf(values: readonly (Value | undefined)[]): Value | undefined {
  return values.includes(undefined) ? undefined : { is: "list", of: values as Value[] };
}

function tableOf(node: SyntaxNode): Value | undefined {
  const entries: [string, Value][] = [];
  for (const part of node.parts) {
    const [key, value] = [part.child("key"), part.child("value")];
    const name =
      key && (key.is(["property_identifier", "identifier"]) ? textValue(key.text) : literalOf(key));
    const inner = value && literalOf(value);
    if (name?.is !== "text" || !inner) return undefined;
    entries.push([name.of, inner]);
  }
  return { is: "table", of: entries };
}
