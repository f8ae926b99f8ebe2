/** Rules for Python. */
import { pack } from "../../index.js";
import { branchToValue } from "./branch-to-value.js";
import { indexAndItem } from "./index-and-item.js";
import { noneToDefault } from "./none-to-default.js";
import { scopedFile } from "./scoped-file.js";

export const pythonPack = pack("python", [indexAndItem, scopedFile, branchToValue, noneToDefault]);
export default pythonPack;
