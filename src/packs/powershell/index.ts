/** Rules for powershell. */
import { pack } from "../../index.js";

export const powershellPack = pack("powershell", []);
export default powershellPack;
