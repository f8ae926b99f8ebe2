/** Lines about hives. */
import type { Hive } from "combwork";

const line = (hive: Hive): string =>
  `${hive.name}: ${hive.mass} g, ${hive.weigh(500, "kg").toFixed(2)} kg without the box`;

export function report(hives: Hive[]): string[] {
  return hives.map(line);
}
