/** Rules for PHP. */
import { pack } from "../../core.js";
import { conditionalHelper } from "./helpers/conditional-helper.js";
import { explicitQuery } from "./helpers/explicit-query.js";
import { containerCall } from "./helpers/container-call.js";
import { helperClass } from "./helpers/helper-class.js";
import { fullName } from "./helpers/full-name.js";
import { leakingResource } from "./leaking-resource.js";
import { needlessTest } from "./needless-test.js";
import { assignedIfMissing } from "./assigned-if-missing.js";
import { guardedRead } from "./guarded-read.js";
import { thrownIfMissing } from "./thrown-if-missing.js";
import { valueOrFallback } from "./value-or-fallback.js";
import { releasedInFinally } from "./released-in-finally.js";
import { shortArray } from "./language/short-array.js";
import { contains } from "./language/contains.js";
import { promotedProperty } from "./language/promoted-property.js";
import { firstClassCallable } from "./language/first-class-callable.js";
import { readonlyProperty } from "./language/readonly-property.js";
import { matchValue } from "./language/match-value.js";
import { arrowFunction } from "./language/arrow-function.js";
import { appended } from "./language/appended.js";
import { classOf } from "./language/class-of.js";
import { createdFunction } from "./language/created-function.js";
import { eachCall } from "./language/each-call.js";

export const phpPack = pack("php", [
  valueOrFallback,
  assignedIfMissing,
  thrownIfMissing,
  guardedRead,
  releasedInFinally,
  needlessTest,
  leakingResource,
  conditionalHelper,
  explicitQuery,
  containerCall,
  helperClass,
  fullName,
  shortArray,
  contains,
  arrowFunction,
  matchValue,
  promotedProperty,
  readonlyProperty,
  firstClassCallable,
  appended,
  classOf,
  createdFunction,
  eachCall,
]);
export default phpPack;
