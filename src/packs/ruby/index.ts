/** Rules for ruby. */
import { pack } from "../../index.js";

export const rubyPack = pack("ruby", []);
export default rubyPack;
