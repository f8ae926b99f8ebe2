import { readingsFor, type Read } from "./by-reading.js";
import { meantCandidate, type About } from "./candidate.js";
import type { Generalised } from "./generalise.js";
import type { Group } from "./groups.js";
import type { Instance } from "./instances.js";
import type { Keys } from "./keys.js";
import { languageOfRule } from "./model.js";

/** The edits of a group for which readings are looked for. */
const MOST_READ = 6;

/** Edits of one move: what is general about their code, the reading that finds them all, or both. */
export interface Meant {
  readonly instances: readonly Instance[];
  readonly general?: Generalised;
  readonly read?: Read;
  /** What it falls apart into where no rule is found for all of it. */
  readonly parts?: readonly Meant[];
}

/**
 * The groups with the reading that finds all their edits, where there is one; edits that nothing else explains may be read too.
 * Those that the same reading finds and that become the same are one move in several spellings.
 */
export async function byMeaning(
  groups: readonly Group[],
  unexplained: readonly Instance[],
  keys: Keys,
): Promise<readonly Meant[]> {
  const meant: Meant[] = [];
  const all: readonly Meant[] = [...groups, ...unexplained.map((instance) => ({ instances: [instance] }))];
  for (const group of all) {
    // Half of an edit is not to be said by itself.
    const shared = group.instances.some(({ isHalf }) => isHalf) ? [] : await sharedReadings(group, keys);
    const at = meant.findIndex(({ read }) => shared.some(({ signature }) => signature === read?.signature));
    if (at < 0) {
      const read = await firstThatWorks(shared, group, keys);
      meant.push(read ? { ...group, read } : group);
      continue;
    }
    const { read, ...other } = meant[at]!;
    const instances = [...other.instances, ...group.instances];
    meant[at] = { instances, read: read!, parts: [...spellings(other), ...spellings(group)] };
  }
  return meant;
}

/** The spellings of which a move was put together. */
const spellings = (one: Meant): readonly Meant[] => (one.general ? [one] : (one.parts ?? [one]));

/** The readings that find the edits of a group and let them become the same, the narrowest first. */
async function sharedReadings({ instances }: Meant, keys: Keys): Promise<Read[]> {
  const [first = [], ...others] = await Promise.all(
    instances.slice(0, MOST_READ).map((instance) => readingsFor(instance, keys)),
  );
  return first.filter(({ signature }) =>
    others.every((reads) => reads.some((read) => read.signature === signature)),
  );
}

async function firstThatWorks(
  reads: readonly Read[],
  { instances }: Meant,
  keys: Keys,
): Promise<Read | undefined> {
  const some = instances.slice(0, MOST_READ);
  for (const read of reads) if (await meantCandidate(read, some, () => nameless(some[0]!), keys)) return read;
  return undefined;
}

/** What a rule is called that is only tried. */
function nameless({ before }: Instance): About {
  return { id: `${languageOfRule(before.tree.language)}/drafted`, title: "drafted", why: "drafted" };
}
