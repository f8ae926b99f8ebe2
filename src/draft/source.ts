import { escapedCode, holesSource, ruleFile, snippetSource, WIDTH } from "./rule-file.js";
import type { Trial } from "../rules/index.js";
import type { Candidate } from "./candidate.js";
import type { DraftCode, DraftName, DraftPart } from "./model.js";
import { nameOfOwn } from "./hole-names.js";

/** The rule of a candidate as a file that a person would write, with its trials. */
export function ruleSource(
  { drafted, spec, conditions, waived, context, needed, old }: Candidate,
  trials: readonly Trial[],
): string {
  const { was, becomes } = drafted;
  const tag = was.language;
  const uses = new Set<string>(["rule", tag]);
  const names = new Map<unknown, string>();
  const taken = new Set(drafted.opened.map(({ hole }) => hole.name));
  const free = (wish: string): string => {
    let name = wish;
    for (let i = 2; taken.has(name); i++) name = `${wish}${i}`;
    taken.add(name);
    return name;
  };
  const exported = free(exportName(spec.id));
  const lines: string[] = [];
  const { opened } = drafted;
  if (opened.length > 0) {
    uses.add("holes");
    lines.push(...holesSource(opened.map(({ hole }) => [hole.name, hole.kind])));
  }
  for (const fresh of drafted.fresh) {
    uses.add("fresh");
    const name = free(safe(fresh.name));
    names.set(fresh, name);
    lines.push(`const ${name} = fresh(${JSON.stringify(fresh.name)}${singularOf(fresh)});`);
  }
  for (const wanted of [...drafted.needs, ...needed]) {
    uses.add("need");
    const name = free(safe(wanted.local ?? wanted.name ?? wanted.module));
    names.set(wanted, name);
    const of = [wanted.module, ...(wanted.name === undefined ? [] : [wanted.name])].map((one) =>
      JSON.stringify(one),
    );
    const given = [
      ...(wanted.local !== undefined && wanted.local !== lastPart(wanted.name ?? wanted.module)
        ? [`as: ${JSON.stringify(wanted.local)}`]
        : []),
      ...(wanted.form === undefined ? [] : [`form: ${JSON.stringify(wanted.form)}`]),
    ];
    const options =
      given.length === 0 ? "" : `${wanted.name === undefined ? ", undefined" : ""}, { ${given.join(", ")} }`;
    lines.push(`const ${name} = need(${of.join(", ")}${options});`);
  }
  const template = (code: DraftCode, depth: number, inContext?: string): string =>
    snippetSource(
      inContext === undefined ? tag : `${tag}.${inContext}`,
      code.texts
        .map((one, i) => (i === 0 ? "" : `\${${partOf(code.parts[i - 1]!)}}`) + escapedCode(one))
        .join(""),
      depth,
    );
  const partOf = (part: DraftPart): string => {
    if (part.is === "hole") return part.hole.name;
    if (part.is === "fresh") return names.get(part.fresh)!;
    if (part.is === "need") return names.get(part.wanted)!;
    return names.get(part)!;
  };
  for (const part of becomes.parts) {
    if (part.is !== "each") continue;
    uses.add("each");
    const name = free(`${part.hole.name}Now`);
    names.set(part, name);
    const written = part.pieces.reduce(
      (within, { pattern, becomes }) =>
        `each(${template(pattern, 0)}, { in: ${within} }).becomes(${onlyPart(becomes, partOf) ?? template(becomes, 0)})`,
      part.hole.name,
    );
    lines.push(`const ${name} = ${written};`);
  }
  const kinds = [
    ...new Set(
      trials.map((trial) =>
        trial.because !== undefined ? "holds" : trial.was === trial.now ? "ignores" : "rewrites",
      ),
    ),
  ];
  if (kinds.length > 0) {
    uses.add("trialsIn");
    lines.push(
      `const { ${kinds.sort().reverse().join(", ")} } = trialsIn(${[trials[0]!.language, ...(trials[0]!.target === undefined ? [] : [trials[0]!.target])].map((one) => JSON.stringify(one)).join(", ")});`,
    );
  }
  for (const { imports } of conditions) for (const one of imports) uses.add(one);
  for (const one of [...(old?.imports ?? []), ...(old?.becomesImports ?? [])]) uses.add(one);
  if (old?.becomes !== undefined) uses.delete(tag);
  const isStatements = opened.some(({ hole }) => hole.kind === "statements");
  const given = conditions.map(({ source }) => source);
  const body = [
    `id: ${JSON.stringify(spec.id)},`,
    `kind: ${JSON.stringify(spec.kind)},`,
    `title: ${inQuotes(spec.title)},`,
    `why: ${inQuotes(spec.why)},`,
    `was: ${old?.source ?? template(was, 2, context)},`,
    ...waived.map(
      ({ source, path, line }) =>
        `// Not asked: ${source}. It does not hold in ${path}:${line}, where the edit was made all the same.`,
    ),
    ...(given.length === 0
      ? []
      : given.join(", ").length + 12 <= WIDTH
        ? [`given: [${given.join(", ")}],`]
        : ["given: [", ...given.map((one) => `  ${one},`), "],"]),
    `becomes: ${old?.becomes ?? template(becomes, 2, old && !isStatements ? "expression" : context)},`,
    ...(needed.length === 0 ? [] : [`needs: [${needed.map((wanted) => names.get(wanted)!).join(", ")}],`]),
    ...(trials.length === 0
      ? ["trials: [],"]
      : ["trials: [", ...trials.map((one) => `  ${trialSource(one)},`), "],"]),
  ];
  return ruleFile({ uses, declared: lines, exported, body });
}

/** The name under which a rule is exported: `python/index-and-item` as `indexAndItem`. */
export function exportName(id: string): string {
  const name = id.split("/")[1]!.replace(/-([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());
  return safe(/^\d/.test(name) ? `rule${name}` : name);
}

function safe(name: string): string {
  const letters = name.replace(
    /[^\p{L}\p{N}_$]+(\p{L})?/gu,
    (_, letter?: string) => letter?.toUpperCase() ?? "",
  );
  const word = /^\d/.test(letters) || letters === "" ? `code${letters}` : letters;
  return nameOfOwn(word);
}

const lastPart = (name: string): string => name.split(/[.:\\/]+/).at(-1)!;

function singularOf({ singularOf }: DraftName): string {
  return singularOf ? `, { singularOf: ${singularOf.name} }` : "";
}

function onlyPart({ texts, parts }: DraftCode, partOf: (part: DraftPart) => string): string | undefined {
  return parts.length === 1 && texts.every((text) => text.trim() === "") ? partOf(parts[0]!) : undefined;
}

/** A trial as it is written in the list of a rule, by the functions of `trialsIn`. */
export function trialSource({ was, now, trust, because, says }: Trial): string {
  if (because !== undefined) return call("holds", [was], JSON.stringify(because));
  if (says !== undefined) return call("reports", [was], JSON.stringify(says));
  if (was === now) return call("ignores", [was]);
  return call(
    "rewrites",
    [was, now],
    trust === undefined || trust === "certain" ? undefined : JSON.stringify(trust),
  );
}

function call(name: string, codes: readonly string[], last?: string): string {
  const plain = codes.map(inQuotes);
  const short = `${name}(${[...plain, ...(last === undefined ? [] : [last])].join(", ")})`;
  if (short.length <= WIDTH - 5 && codes.every((code) => code.trimEnd().split("\n").length <= 2))
    return short;
  const long = codes.map((code) => {
    if (!code.trimEnd().includes("\n")) return inQuotes(code);
    const lines = code
      .replace(/\\/g, "\\\\")
      .replace(/`/g, "\\`")
      .replace(/\$\{/g, "\\${")
      .replace(/\n$/, "")
      .split("\n")
      .map((line) => (line.trim() === "" ? "" : `        ${line}`));
    return `\`\n${lines.join("\n")}\n      \``;
  });
  return `${name}(\n${[...long, ...(last === undefined ? [] : [last])].map((one) => `      ${one},\n`).join("")}    )`;
}

/** A text as a string, in the quotes that do not stand in it. */
function inQuotes(text: string): string {
  const double = JSON.stringify(text);
  if (!text.includes('"') || text.includes("'")) return double;
  return `'${double.slice(1, -1).replace(/\\"/g, '"')}'`;
}
