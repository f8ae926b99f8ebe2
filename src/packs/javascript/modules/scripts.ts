import { subset } from "semver";
import { mayBeScript, unknown } from "../../../core.js";
import type { Answer } from "../../../core.js";
import type { Manifest } from "./manifest.js";
import { NotAModule } from "./not-a-module.js";

/** Where Node takes a file without an ending for a module, as tried with these versions and the ones before them. */
const TAKES_SCRIPTS = "^18.19 || ^20.10 || >=21.1";

/** What may be otherwise with a file that has no ending. Throws a NotAModule where the package is for a Node that does not take it. */
export function asScript(path: string, { engines }: Manifest): Answer[] {
  if (!mayBeScript(path)) return [];
  if (path.slice(path.lastIndexOf("/") + 1).includes("."))
    throw new NotAModule(undefined, `Node does not load ${path} in a package of ES modules, for its ending`);
  const says = `${path} has no ending; Node takes it for a module from 18.19 and 20.10 on`;
  const range = engines?.["node"];
  if (range === undefined) return [unknown("name.other-uses", says)];
  if (subset(range, TAKES_SCRIPTS)) return [];
  throw new NotAModule(undefined, `${says}, and the package is for \`${range}\``);
}
