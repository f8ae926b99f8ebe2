/** Rules for C++. */
import { pack } from "../../index.js";
import { needlessTest } from "./needless-test.js";
import { nullPointer } from "./null-pointer.js";
import { ownedLocal } from "./owned/owned-local.js";
import { pointerAndFlag } from "./pointer-and-flag.js";

export const cppPack = pack("cpp", [nullPointer, needlessTest, pointerAndFlag, ownedLocal]);
export default cppPack;
