/** Rules for PowerShell. */
import { pack } from "../../index.js";
import { nullFirst } from "./null-first.js";
import { valueOrFallback } from "./value-or-fallback.js";

export const powershellPack = pack("powershell", [nullFirst, valueOrFallback]);
export default powershellPack;
