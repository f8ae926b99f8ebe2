import { Need, type Snippet } from "../../pattern/index.js";
import { brought, named } from "../../readings/index.js";
import type { Match } from "../match.js";
import { pack, rule, RuleError, type Pack, type Rule, type RuleSpec } from "../rule.js";
import type { Trial } from "../trial.js";
import { loneName } from "./code-text.js";
import { looksAlike, notYetChanged } from "./alike.js";
import { isSeveral, standsAlone } from "./alone.js";
import { inFiles, inThoseFiles } from "./files.js";
import { givenFor, isWhole, unlessWrapped } from "./given.js";
import { importedAtTop, nameBecomes, notTried, staysOrMoves } from "./names.js";
import { otherUsesRule, type Going } from "./other-uses.js";
import { readRow } from "./read-row.js";
import { readSafely } from "./safe-access.js";
import { textRow } from "./text-row.js";
import { tableSchema, type ChangeRow, type ChangeTable, type Table } from "./row.js";

/**
 * A pack of rules, one for each row of a list of what a product has changed. Throws a RuleError that names the row and the
 * column for what is wrong in it.
 */
export function changes(written: ChangeTable): Pack {
  const parsed = tableSchema.safeParse(written);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new RuleError(`${placeIn(written, issue?.path ?? [])}: ${issue?.message}`);
  }
  const table = parsed.data;
  const seen = new Map<string, number>();
  const rules = table.rows.map((row, i) => {
    const where = `table "${table.product}", row ${i + 1}`;
    const id = idOf(row, table);
    const other = seen.get(id);
    if (other !== undefined)
      throw new RuleError(`${where}: it would be called "${id}" as row ${other} is; give it an \`id\``);
    seen.set(id, i + 1);
    return ruleFor(row, id, table, where);
  });
  const { product, steps = [] } = table;
  return pack(product, [...rules, ...otherUses(table)], {
    moves: { product, language: table.language, steps },
  });
}

/** The row and column of what a schema complains of. */
function placeIn(written: unknown, path: readonly PropertyKey[]): string {
  const { product } = (written ?? {}) as { product?: unknown };
  const name = typeof product === "string" ? `table "${product}"` : "the table";
  const [first, row, ...column] = path;
  if (first !== "rows" || typeof row !== "number") return [name, ...path.map(String)].join(", ");
  return [`${name}, row ${row + 1}`, ...(column.length > 0 ? [column.join(".")] : [])].join(", ");
}

/** A rule for each name that goes, and of which the rows only say what becomes of some uses. */
function otherUses(table: Table): Rule[] {
  const going = new Map<string, Going[]>();
  const whole = new Set<string>();
  table.rows.forEach((row, i) => {
    if (row.inText !== undefined) return;
    const { names, old, now } = readRow(row, table, `table "${table.product}", row ${i + 1}`);
    for (const [shown, what] of names.needs) {
      // Of a class, a row may speak of no more than one member.
      if (!loneName(old) && !isCalled(what, old)) continue;
      const key = JSON.stringify([what.wanted.module, what.wanted.name]);
      if (loneName(old)) whole.add(key);
      else
        going.set(key, [
          ...(going.get(key) ?? []),
          { row, shown, what, old, now, stays: isNamedIn(now, what) },
        ]);
    }
  });
  return [...going]
    .filter(([key]) => !whole.has(key))
    .map(([, [first, ...more]]) =>
      otherUsesRule(`${idOf(first!.row, table)}-otherwise`, table.language, [first!, ...more]),
    );
}

const isNamedIn = (now: Snippet | undefined, what: Need): boolean =>
  now?.parts.some((part) => part instanceof Need && part.isSame(what)) ?? false;

/** Does the code begin with a call of this name? */
function isCalled(what: Need, { texts, parts }: Snippet): boolean {
  return parts[0] === what && texts[0]!.trim() === "" && /^\s*\(/.test(texts[1] ?? "");
}

/** `python/combwork-open-hive` for `openHive(name)`. */
function idOf({ id, old }: ChangeRow, { product, language }: Table): string {
  const words = old.replace(/\(.*/s, "").match(/[\p{L}\p{N}_]+/gu) ?? [];
  return `${language}/${kebab(product)}-${kebab(id ?? words.at(-1) ?? "row")}`;
}

function kebab(words: string): string {
  return words
    .replace(/(\p{Ll})(\p{Lu})/gu, "$1-$2")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
}

function ruleFor(row: ChangeRow, id: string, table: Table, where: string): Rule {
  if (row.new === undefined && row.advice === undefined)
    throw new RuleError(`${where}: there is neither \`new\` code nor \`advice\``);
  if (row.new !== undefined && row.example.new === undefined)
    throw new RuleError(`${where}, example: it does not say what becomes of the code`);
  const code: RowCode = row.inText === undefined ? codeRow(row, table, where) : textRow(row, table, where);
  const { was, where: narrowed = [], given = [], becomes, once, title = titleOf(row) } = code;
  const { link, since, until, note, kind, advice } = row;
  return rule({
    id,
    kind,
    title: row.title ?? title,
    why: note,
    ...(link === undefined ? {} : { link }),
    ...(since === undefined ? {} : { since }),
    ...(until === undefined ? {} : { until }),
    was,
    where: [...(row.files === undefined ? [] : [inFiles(row.files)]), ...narrowed],
    given,
    ...(becomes === undefined ? { advice: advice! } : { becomes }),
    ...(once === undefined ? {} : { once }),
    trials: [trialFor(row, table.language)],
  });
}

/** What a row looks for and writes. */
type RowCode = Pick<RuleSpec, "was" | "where" | "given" | "becomes" | "once"> & { readonly title?: string };

/** The same for one that speaks of code. */
function codeRow(row: ChangeRow, table: Table, where: string): RowCode {
  const { names, old, now } = readRow(row, table, where);
  const lone = loneName(old);
  const other = now && loneName(now);
  const [safeOld, safeNow] = [readSafely(old), now && readSafely(now)];
  const isSafeToo = safeOld !== undefined && (now === undefined || safeNow !== undefined);
  const since = row.since === undefined ? "" : ` ${row.since}`;
  const about = [
    ...(row.files === undefined ? [] : [inThoseFiles(row.files)]),
    ...givenFor(old, now, names, row.files === undefined ? table.product + since : undefined),
  ];
  const atTop = goingFrom(names.needs, now).map((one) =>
    importedAtTop(one, other !== undefined && lone !== undefined),
  );
  const alone = row.new !== undefined && isSeveral(row.new) && !isSeveral(row.old) ? [standsAlone] : [];
  const isAlike = now !== undefined && !lone && looksAlike(old, now);
  const given = [
    ...about,
    ...alone,
    ...(isAlike ? [notYetChanged] : []),
    ...(other ? [notTried] : []),
    ...atTop,
  ];
  if (lone && other)
    return {
      was: [brought(lone), named(lone)],
      where: [staysOrMoves(lone, other)],
      given,
      becomes: nameBecomes(lone, other),
      ...(row.old === row.new ? { title: `\`${row.old}\` comes from \`${other.wanted.module}\` now` } : {}),
    };
  const becomes = isSafeToo ? ({ alternative }: Match) => (alternative === 1 ? safeNow! : now!) : now;
  return {
    was: lone ? named(lone) : isSafeToo ? [old, safeOld] : old,
    where: lone ? [] : [isWhole(old, now), ...unlessWrapped(row, now)],
    given,
    ...(now === undefined ? {} : { becomes: becomes! }),
    ...(isAlike ? { once: true as const } : {}),
  };
}

/** What the old code takes from elsewhere and the new code does not. */
function goingFrom(needs: ReadonlyMap<string, Need>, now: Snippet | undefined): Need[] {
  return now === undefined ? [] : [...needs.values()].filter((one) => !isNamedIn(now, one));
}

function titleOf({ old, new: now }: ChangeRow): string {
  return now === undefined ? `\`${old}\` is no longer what it was` : `\`${old}\` is now \`${now}\``;
}

function trialFor({ example, advice }: ChangeRow, language: Trial["language"]): Trial {
  const ended = (code: string): string => (code.endsWith("\n") ? code : `${code}\n`);
  const old = ended(example.old);
  const now = example.new === undefined ? old : ended(example.new);
  return { language, was: old, now, ...(advice !== undefined && now === old ? { says: advice } : {}) };
}
