/** Rules for java. */
import { pack } from "../../index.js";

export const javaPack = pack("java", []);
export default javaPack;
