/** Rules for PowerShell. */
import { pack } from "../../core.js";
import { streamedList } from "./streams/streamed.js";
import { discarded } from "./streams/discarded.js";
import { expandable } from "./texts/expandable.js";
import { namedParameter } from "./commands/named-parameter.js";
import { fullName } from "./commands/full-name.js";
import { constructorCall } from "./objects/constructor-call.js";
import { customObject } from "./objects/custom-object.js";
import { needlessTest } from "./needless-test.js";
import { nullFirst } from "./null-first.js";
import { valueOrFallback } from "./value-or-fallback.js";
import { releasedInFinally } from "./released-in-finally.js";

export const powershellPack = pack("powershell", [
  nullFirst,
  valueOrFallback,
  releasedInFinally,
  needlessTest,
  streamedList,
  discarded,
  expandable,
  fullName,
  namedParameter,
  constructorCall,
  customObject,
]);
export default powershellPack;
