import type { Utilities } from "./library-call.js";
import { LISTS } from "./native-lists.js";
import { OBJECTS } from "./native-objects.js";
import type { Native } from "./native-row.js";
import { TEXTS } from "./native-texts.js";
import { VALUES } from "./native-values.js";

const byName = new Map<string, Native[]>();
for (const native of [...LISTS, ...TEXTS, ...OBJECTS, ...VALUES])
  for (const name of native.names) byName.set(name, [...(byName.get(name) ?? []), native]);

/** How the language says what a function of a library does with so many arguments. */
export function nativeOf(library: Utilities, name: string, count: number): Native | undefined {
  return byName.get(name)?.find((one) => one.count === count && (one.of ?? library) === library);
}
