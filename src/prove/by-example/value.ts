/**
 * A value to call functions with, as data that any language can make: `missing` is JavaScript's undefined and Python's None;
 * `thing` is an object, in Python one with attributes; `table` is a dictionary, in JavaScript an object; `callback` is a
 * function that gives the same value each time.
 */
export type Value =
  | { readonly is: "missing" | "null" | "nan" | "infinity" }
  | { readonly is: "boolean"; readonly of: boolean }
  | { readonly is: "number"; readonly of: number }
  | { readonly is: "text"; readonly of: string }
  | { readonly is: "list"; readonly of: readonly Value[] }
  | { readonly is: "thing" | "table"; readonly of: readonly (readonly [name: string, value: Value])[] }
  | { readonly is: "date"; readonly of: number }
  | { readonly is: "callback"; readonly of: Value };

export const MISSING: Value = { is: "missing" };
export const NULL: Value = { is: "null" };

export function numberValue(of: number): Value {
  if (Number.isNaN(of)) return { is: "nan" };
  return of === Infinity ? { is: "infinity" } : { is: "number", of };
}

export function textValue(of: string): Value {
  return { is: "text", of };
}

/** A value as it is written in JavaScript. */
export function inJavaScript(value: Value): string {
  switch (value.is) {
    case "missing":
      return "undefined";
    case "null":
      return "null";
    case "nan":
      return "NaN";
    case "infinity":
      return "Infinity";
    case "number":
      return Object.is(value.of, -0) ? "-0" : String(value.of);
    case "boolean":
      return String(value.of);
    case "text":
      return JSON.stringify(value.of);
    case "list":
      return `[${value.of.map(inJavaScript).join(", ")}]`;
    case "date":
      return `new Date(${value.of})`;
    case "callback":
      return `() => ${value.of.is === "thing" || value.of.is === "table" ? `(${inJavaScript(value.of)})` : inJavaScript(value.of)}`;
    case "thing":
    case "table": {
      const parts = value.of.map(
        ([name, inner]) =>
          `${/^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name) ? name : JSON.stringify(name)}: ${inJavaScript(inner)}`,
      );
      return parts.length === 0 ? "{}" : `{ ${parts.join(", ")} }`;
    }
  }
}

/** A value as it is written in Python. */
export function inPython(value: Value): string {
  switch (value.is) {
    case "missing":
    case "null":
      return "None";
    case "nan":
      return 'float("nan")';
    case "infinity":
      return 'float("inf")';
    case "number":
      return Object.is(value.of, -0) ? "-0.0" : String(value.of);
    case "boolean":
      return value.of ? "True" : "False";
    case "text":
      return JSON.stringify(value.of);
    case "list":
      return `[${value.of.map(inPython).join(", ")}]`;
    case "date":
      return `datetime.datetime.fromtimestamp(${value.of / 1000}, datetime.timezone.utc)`;
    case "callback":
      return `lambda *_, **__: ${inPython(value.of)}`;
    case "table":
      return `{${value.of.map(([name, inner]) => `${JSON.stringify(name)}: ${inPython(inner)}`).join(", ")}}`;
    case "thing":
      return `types.SimpleNamespace(${value.of.map(([name, inner]) => `${name}=${inPython(inner)}`).join(", ")})`;
  }
}
