/** Rules for csharp. */
import { pack } from "../../index.js";

export const csharpPack = pack("csharp", []);
export default csharpPack;
