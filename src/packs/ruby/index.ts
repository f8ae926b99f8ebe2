/** Rules for Ruby. */
import { pack } from "../../core.js";
import { delegated } from "./delegation/delegated.js";
import { needlessTest } from "./needless-test.js";
import { unnamedResource } from "./unnamed-resource.js";
import { leakingResource } from "./leaking-resource.js";
import { asList } from "./as-list.js";
import { valueOrFallback } from "./value-or-fallback.js";
import { assignedIfMissing } from "./assigned-if-missing.js";
import { blockForm } from "./block-form.js";
import { fetchOrDefault } from "./fetch-or-default.js";
import { guardedCall } from "./guarded-call.js";
import { attribute } from "./forms/attribute.js";
import { goneNames } from "./forms/gone-names.js";
import { shortKeys } from "./forms/short-keys.js";
import { anyOrAll } from "./lists/any-or-all.js";
import { mappedHash } from "./lists/mapped-hash.js";
import { mappedList } from "./lists/mapped-list.js";
import { summed } from "./lists/summed.js";
import { synchronized } from "./synchronized.js";

export const rubyPack = pack("ruby", [
  guardedCall,
  valueOrFallback,
  assignedIfMissing,
  fetchOrDefault,
  asList,
  blockForm,
  synchronized,
  leakingResource,
  unnamedResource,
  needlessTest,
  delegated,
  mappedList,
  mappedHash,
  anyOrAll,
  summed,
  attribute,
  shortKeys,
  goneNames,
]);
export default rubyPack;
