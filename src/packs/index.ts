/** All rules that ship, by packs. */
import type { Pack } from "../core.js";
import cppPack from "./cpp/index.js";
import csharpPack from "./csharp/index.js";
import javaPack from "./java/index.js";
import javascriptPack from "./javascript/index.js";
import phpPack from "./php/index.js";
import powershellPack from "./powershell/index.js";
import pythonPack from "./python/index.js";
import rubyPack from "./ruby/index.js";

/** All packs that ship, in the order in which they are listed. */
export const SHIPPED: readonly Pack[] = [
  javascriptPack,
  pythonPack,
  javaPack,
  csharpPack,
  cppPack,
  phpPack,
  rubyPack,
  powershellPack,
];
