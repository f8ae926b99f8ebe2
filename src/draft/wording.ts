import type { About } from "./candidate.js";
import type { Generalised } from "./generalise.js";
import { declaredIn } from "./instances.js";
import type { Group } from "./groups.js";
import { textOfRun } from "./run.js";
import { languageOfRule, type DraftCode } from "./model.js";

const LONGEST_TITLE = 70;

/** What a rule for a group is called, by the code that it is about. `taken` are the ids of other rules. */
export function aboutOf(
  group: Pick<Group, "instances">,
  wanted: string | undefined,
  taken: ReadonlySet<string>,
  slug?: string,
): (drafted: Generalised) => About {
  const [first] = group.instances;
  const { tree } = first!.before;
  const words = slug ?? idWords(group);
  const base = `${languageOfRule(tree.language)}/${words}`;
  let id = wanted ?? base;
  for (let i = 2; taken.has(id); i++) id = `${wanted ?? base}-${i}`;
  const places = new Set(group.instances.map(({ file }) => file.path));
  const [path] = places;
  const where = places.size === 1 ? path! : `${places.size} files`;
  const edits = group.instances.length === 1 ? "an edit" : `${group.instances.length} edits`;
  return (drafted) => ({
    id,
    title: titleOf(drafted),
    why: `Drafted from ${edits} in ${where}. Say here what is wrong with the old code.`,
  });
}

/** Code as a person reads it, with the holes by their names. */
export function shownCode({ texts, parts }: DraftCode): string {
  return texts
    .map((text, i) => {
      const part = parts[i - 1];
      if (!part) return text;
      const name =
        part.is === "fresh"
          ? part.fresh.name
          : part.is === "need"
            ? (part.wanted.name ?? part.name)
            : part.hole.name;
      return name + text;
    })
    .join("");
}

function titleOf({ was, becomes }: Generalised): string {
  const [old, now] = [was, becomes].map((code) => shownCode(code).replace(/\s+/g, " ").trim());
  if (now === "") return old!.length <= LONGEST_TITLE ? `Remove \`${old}\`` : "Remove what is not needed";
  const title = `Write \`${now}\` instead of \`${old}\``;
  if (title.length <= LONGEST_TITLE) return title;
  return now!.length <= LONGEST_TITLE - 10 ? `Write \`${now}\`` : "Write it the new way";
}

/** A few words of the code that came, else of what went. */
function idWords({ instances }: Pick<Group, "instances">): string {
  const words = (texts: readonly string[]): Set<string> =>
    new Set(texts.flatMap((text) => text.match(/[\p{L}_][\p{L}\p{N}_]*/gu) ?? []));
  const inAll = (side: "before" | "after"): string[] => {
    const sets = instances.map((instance) => words([textOfRun(instance[side])]));
    return [...(sets[0] ?? [])].filter((word) => sets.every((set) => set.has(word)));
  };
  const [old, now] = [inAll("before"), inAll("after")];
  const own = declaredIn(instances[0]!.after);
  const came = now.filter((word) => !old.includes(word) && !own.has(word));
  const went = old.filter((word) => !now.includes(word));
  const picked = (came.length > 0 ? came : went.length > 0 ? went : now).slice(0, 3);
  const kebab = picked
    .map((word) => word.replace(/(\p{Ll})(\p{Lu})/gu, "$1-$2").replace(/_/g, "-"))
    .join("-")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
  return kebab === "" ? "drafted" : kebab;
}
