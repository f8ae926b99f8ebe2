/** Rules for cpp. */
import { pack } from "../../index.js";

export const cppPack = pack("cpp", []);
export default cppPack;
