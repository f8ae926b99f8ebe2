/** Rules for JavaScript and TypeScript. */
import { pack } from "../../index.js";
import { falsyFallback } from "./falsy-fallback.js";
import { guardedRead } from "./guarded-read.js";
import { valueOrFallback } from "./value-or-fallback.js";
import { releasedInFinally } from "./released-in-finally.js";

export const javascriptPack = pack("javascript", [
  guardedRead,
  valueOrFallback,
  falsyFallback,
  releasedInFinally,
]);
export default javascriptPack;
