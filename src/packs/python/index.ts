/** Rules for Python. */
import { pack } from "../../index.js";
import { leakingResource } from "./leaking-resource.js";
import { branchToValue } from "./branch-to-value.js";
import { indexAndItem } from "./index-and-item.js";
import { noneToDefault } from "./none-to-default.js";
import { scopedLock } from "./scoped-lock.js";
import { scopedMany } from "./scoped-many.js";
import { scopedResource } from "./scoped-resource.js";

export const pythonPack = pack("python", [
  indexAndItem,
  scopedResource,
  scopedLock,
  scopedMany,
  branchToValue,
  noneToDefault,
  leakingResource,
]);
export default pythonPack;
