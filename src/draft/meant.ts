import { readingsFor, type Read } from "./by-reading.js";
import { meantCandidate, type About } from "./candidate.js";
import type { Group } from "./groups.js";
import type { Instance } from "./instances.js";
import type { Keys } from "./keys.js";

/** The edits of a group for which readings are looked for. */
const MOST_READ = 6;

/** A group, and the reading that finds all its edits. */
export interface Meant {
  readonly group: Pick<Group, "instances" | "parts"> & Partial<Pick<Group, "general">>;
  readonly read: Read | undefined;
}

/**
 * The groups with the reading that finds all their edits, where there is one. Groups that the same reading finds and that become the
 * same are one move in several spellings; so are edits that nothing else explains.
 */
export async function byMeaning(
  groups: readonly Group[],
  unexplained: readonly Instance[],
  keys: Keys,
): Promise<{ readonly meant: Meant[]; readonly left: Instance[] }> {
  const meant: Meant[] = [];
  const left: Instance[] = [];
  const all = [...groups, ...unexplained.map((instance) => ({ instances: [instance] }))];
  for (const group of all) {
    const found: Read[][] = [];
    for (const instance of group.instances.slice(0, MOST_READ)) found.push(await readingsFor(instance, keys));
    const shared = (found[0] ?? []).filter(({ signature }) =>
      found.every((reads) => reads.some((read) => read.signature === signature)),
    );
    const same = meant.findIndex(({ read }) => shared.some(({ signature }) => signature === read?.signature));
    if (same >= 0) {
      const { group: other, read } = meant[same]!;
      meant[same] = { group: { instances: [...other.instances, ...group.instances] }, read };
    } else if ("general" in group || shared.length > 0) {
      let read: Read | undefined;
      for (const one of shared) {
        const some = group.instances.slice(0, MOST_READ);
        if (await meantCandidate(one, some, () => nameless(some[0]!), keys)) {
          read = one;
          break;
        }
      }
      if (read || "general" in group) meant.push({ group, read });
      else left.push(...group.instances);
    } else left.push(...group.instances);
  }
  return { meant, left };
}

/** What a rule is called that is only tried. */
function nameless({ before }: Instance): About {
  const { id } = before.tree.language;
  return { id: `${id === "tsx" ? "typescript" : id}/drafted`, title: "drafted", why: "drafted" };
}
