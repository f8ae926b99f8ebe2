/** What a `package.json` says that counts here. */
export interface Manifest {
  readonly name?: string;
  readonly type?: string;
  readonly private?: boolean;
  readonly main?: string;
  readonly bin?: string | Readonly<Record<string, string>>;
  readonly exports?: unknown;
  readonly scripts?: Readonly<Record<string, string>>;
}

/** Undefined for what is no manifest. */
export function manifestIn(text: string | undefined): Manifest | undefined {
  try {
    const found: unknown = text === undefined ? undefined : JSON.parse(text);
    return typeof found === "object" && found !== null && !Array.isArray(found)
      ? (found as Manifest)
      : undefined;
  } catch {
    return undefined;
  }
}

/** The edit with which a manifest says that its files are ES modules; undefined where there is no good place for it. */
export function withModules(text: string): { start: number; end: number; text: string } | undefined {
  const old = manifestIn(text);
  if (!old) return undefined;
  const wanted = JSON.stringify(sorted({ ...old, type: "module" }));
  const kind = /"type"(\s*:\s*)"commonjs"/.exec(text);
  const places = [
    ...(kind
      ? [{ start: kind.index, end: kind.index + kind[0].length, text: `"type"${kind[1]}"module"` }]
      : []),
    ...["version", "name"].flatMap((key) => behind(text, key)),
    ...behind(text, undefined),
  ];
  return places.find(({ start, end, text: put }) => {
    const now = manifestIn(text.slice(0, start) + put + text.slice(end));
    return now !== undefined && JSON.stringify(sorted(now)) === wanted;
  });
}

/** A new line behind that of a key, or behind the first bracket, in the layout of the lines there. */
function behind(text: string, key: string | undefined): { start: number; end: number; text: string }[] {
  const line = key === undefined ? /^\s*\{/ : new RegExp(`^[ \\t]*"${key}"\\s*:\\s*"[^"\\n]*",`, "m");
  const found = line.exec(text);
  if (!found) return [];
  const at = found.index + found[0].length;
  const [, next] = /^(\s*)"/.exec(text.slice(at)) ?? [];
  return [{ start: at, end: at, text: `${next ?? ""}"type": "module",` }];
}

function sorted(value: object): object {
  return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)));
}
