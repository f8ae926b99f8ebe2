/** Rules for C++. */
import { pack } from "../../core.js";
import { leakingResource } from "./leaking-resource.js";
import { needlessTest } from "./needless-test.js";
import { nullPointer } from "./null-pointer.js";
import { autoPointer } from "./owned/auto-pointer.js";
import { ownedArray } from "./owned/owned-array.js";
import { ownedHandle } from "./owned/owned-handle.js";
import { ownedHandleMember } from "./owned/owned-handle-member.js";
import { constParameter } from "./constants/const-parameter.js";
import { constantMacro } from "./constants/constant-macro.js";
import { constVariable } from "./constants/const-variable.js";
import { initialisedByFunction } from "./constants/initialised-by-function.js";
import { initialisedOnce } from "./constants/initialised-once.js";
import { scopedLock } from "./scoped-lock.js";
import { ownedMember } from "./owned/owned-member.js";
import { ownedLocal } from "./owned/owned-local.js";
import { pointerAndFlag } from "./pointer-and-flag.js";
import { eachItem } from "./each-item.js";
import { iteratorLoop } from "./iterator-loop.js";
import { emplaced } from "./emplaced.js";
import { defaulted } from "./defaulted.js";
import { deleted } from "./deleted.js";
import { namedCast } from "./named-cast.js";
import { typeOnce } from "./type-once.js";
import { usingAlias } from "./using-alias.js";
import { overrideMark } from "./override.js";

export const cppPack = pack("cpp", [
  nullPointer,
  needlessTest,
  pointerAndFlag,
  ownedLocal,
  ownedMember,
  ownedArray,
  ownedHandle,
  ownedHandleMember,
  autoPointer,
  scopedLock,
  leakingResource,
  constParameter,
  constVariable,
  initialisedByFunction,
  initialisedOnce,
  constantMacro,
  eachItem,
  iteratorLoop,
  typeOnce,
  namedCast,
  emplaced,
  defaulted,
  deleted,
  usingAlias,
  overrideMark,
]);
export default cppPack;
