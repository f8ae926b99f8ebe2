/** Rules for Python. */
import { pack } from "../../index.js";
import { needlessTest } from "./needless-test.js";
import { assignedInTest } from "./assigned-in-test.js";
import { defaultDict } from "./default-dict.js";
import { filledDict } from "./filled-dict.js";
import { lookupOrDefault } from "./lookup-or-default.js";
import { leakingResource } from "./leaking-resource.js";
import { branchToValue } from "./branch-to-value.js";
import { indexAndItem } from "./index-and-item.js";
import { removedIfThere } from "./removed-if-there.js";
import { unnamedResource } from "./unnamed-resource.js";
import { noneToDefault } from "./none-to-default.js";
import { scopedLock } from "./scoped-lock.js";
import { scopedMany } from "./scoped-many.js";
import { formatCall } from "./texts/format-call.js";
import { percentFormat } from "./texts/percent-format.js";
import { scopedResource } from "./scoped-resource.js";

export const pythonPack = pack("python", [
  indexAndItem,
  scopedResource,
  scopedLock,
  scopedMany,
  branchToValue,
  noneToDefault,
  leakingResource,
  unnamedResource,
  lookupOrDefault,
  filledDict,
  removedIfThere,
  defaultDict,
  assignedInTest,
  needlessTest,
  percentFormat,
  formatCall,
]);
export default pythonPack;
