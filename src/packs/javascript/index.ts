/** Rules for JavaScript and TypeScript. */
import { pack } from "../../index.js";
import { leakingResource } from "./leaking-resource.js";
import { needlessTest } from "./needless-test.js";
import { guardedCall } from "./guarded-call.js";
import { assignedIfMissing } from "./assigned-if-missing.js";
import { falsyFallback } from "./falsy-fallback.js";
import { guardedRead } from "./guarded-read.js";
import { valueOrFallback } from "./value-or-fallback.js";
import { releasedInFinally } from "./released-in-finally.js";

export const javascriptPack = pack("javascript", [
  guardedRead,
  valueOrFallback,
  falsyFallback,
  releasedInFinally,
  assignedIfMissing,
  guardedCall,
  needlessTest,
  leakingResource,
]);
export default javascriptPack;
