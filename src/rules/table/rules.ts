import { Need, type Snippet } from "../../pattern/index.js";
import { brought, named } from "../../readings/index.js";
import { pack, rule, RuleError, type Pack, type Rule } from "../rule.js";
import type { Trial } from "../trial.js";
import { loneName } from "./code-text.js";
import { givenFor, isWhole, unlessWrapped } from "./given.js";
import { importedAtTop, nameBecomes, notTried, staysOrMoves } from "./names.js";
import { otherUsesRule, type Going } from "./other-uses.js";
import { readRow } from "./read-row.js";
import { readSafely } from "./safe-access.js";
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
    const { names, old, now } = readRow(row, table, `table "${table.product}", row ${i + 1}`);
    for (const [shown, what] of names.needs) {
      // Of a class, a row may speak of no more than one member.
      if (!loneName(old) && !isCalled(what, old)) continue;
      const key = JSON.stringify([what.wanted.module, what.wanted.name]);
      const stays = now?.parts.some(
        (part) =>
          part instanceof Need &&
          part.wanted.module === what.wanted.module &&
          part.wanted.name === what.wanted.name,
      );
      // Where the name stays, what is written in the new way cannot be told from what is not.
      if (loneName(old) || stays) whole.add(key);
      else going.set(key, [...(going.get(key) ?? []), { row, shown, what, old }]);
    }
  });
  return [...going]
    .filter(([key]) => !whole.has(key))
    .map(([, [first, ...more]]) =>
      otherUsesRule(`${idOf(first!.row, table)}-otherwise`, table.language, [first!, ...more]),
    );
}

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
  const { language, product } = table;
  const { names, old, now } = readRow(row, table, where);
  if (now === undefined && row.advice === undefined)
    throw new RuleError(`${where}: there is neither \`new\` code nor \`advice\``);
  if (now !== undefined && row.example.new === undefined)
    throw new RuleError(`${where}, example: it does not say what becomes of the code`);
  const lone = loneName(old);
  const other = now && loneName(now);
  const [safeOld, safeNow] = [readSafely(old), now && readSafely(now)];
  const isSafeToo = safeOld !== undefined && (now === undefined || safeNow !== undefined);
  const since = row.since === undefined ? "" : ` ${row.since}`;
  return rule({
    id,
    kind: row.kind,
    title: row.title ?? titleOf(row, lone, other),
    why: row.note,
    ...(row.link === undefined ? {} : { link: row.link }),
    ...(row.since === undefined ? {} : { since: row.since }),
    ...(row.until === undefined ? {} : { until: row.until }),
    was: lone ? (other ? [brought(lone), named(lone)] : named(lone)) : isSafeToo ? [old, safeOld] : old,
    where: lone
      ? other
        ? [staysOrMoves(lone, other)]
        : []
      : [isWhole(old, now), ...unlessWrapped(row, now)],
    given: [
      ...givenFor(old, now, names, product + since),
      ...(other ? [notTried] : []),
      ...goingFrom(names.needs, now).map((one) =>
        importedAtTop(one, other !== undefined && lone !== undefined),
      ),
    ],
    ...(now === undefined
      ? { advice: row.advice! }
      : {
          becomes:
            lone && other
              ? nameBecomes(lone, other)
              : isSafeToo
                ? ({ alternative }) => (alternative === 1 ? safeNow! : now)
                : now,
        }),
    trials: [trialFor(row, language)],
  });
}

/** What the old code takes from elsewhere and the new code does not. */
function goingFrom(needs: ReadonlyMap<string, Need>, now: Snippet | undefined): Need[] {
  return now === undefined ? [] : [...needs.values()].filter((one) => !now.parts.includes(one));
}

function titleOf({ old, new: now }: ChangeRow, lone?: Need, other?: Need): string {
  if (lone && other && old === now) return `\`${old}\` comes from \`${other.wanted.module}\` now`;
  return now === undefined ? `\`${old}\` is no longer what it was` : `\`${old}\` is now \`${now}\``;
}

function trialFor({ example, advice }: ChangeRow, language: Trial["language"]): Trial {
  const ended = (code: string): string => (code.endsWith("\n") ? code : `${code}\n`);
  const old = ended(example.old);
  const now = example.new === undefined ? old : ended(example.new);
  return { language, was: old, now, ...(advice !== undefined && now === old ? { says: advice } : {}) };
}
