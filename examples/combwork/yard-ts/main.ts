/** What the bees of the south meadow are up to. */
import * as cw from "combwork";
import { countFrames, drain, Frame, type Hive, MAX_FRAMES, names, openHive } from "combwork";
import { report } from "./report.ts";

declare const console: { log(...what: unknown[]): void };

function stocked(name: string, grams: number[]): Hive {
  const hive = openHive(name, MAX_FRAMES);
  for (const weight of grams) hive.add(new Frame("brood", weight));
  return hive;
}

const hives = [stocked("Linden", [1800, 2100, 1950]), stocked("Clover", [900, 1100])];
for (const hive of hives) {
  // the keeper wants to know at once
  hive.on("swarm", (it) => console.log("swarm from", it.name));
}
hives.push(cw.openHive("Heather", 4));

console.log(countFrames(hives), "frames in", names(hives).sort().join(", "));
console.log("first:", names(hives)[0]);
for (const line of report(hives)) console.log(line);
hives[0]!.split();
console.log(cw.countFrames(hives), "frames left");
console.log("drained:", drain(hives[1]!));
