/** Rules for JavaScript and TypeScript. */
import { pack } from "../../core.js";
import { leakingResource } from "./leaking-resource.js";
import { needlessTest } from "./needless-test.js";
import { guardedCall } from "./guarded-call.js";
import { assignedIfMissing } from "./assigned-if-missing.js";
import { falsyFallback } from "./falsy-fallback.js";
import { guardedRead } from "./guarded-read.js";
import { standInObject } from "./stand-in-object.js";
import { readOrFallback } from "./read-or-fallback.js";
import { valueOrFallback } from "./value-or-fallback.js";
import { releasedInFinally } from "./released-in-finally.js";
import { spreadArguments } from "./calls/spread-arguments.js";
import { promiseForm } from "./callbacks/promise-form.js";
import { stepsAwaited } from "./callbacks/steps-awaited.js";
import { classFromCall } from "./classes/from-call.js";
import { classFromPrototype } from "./classes/from-prototype.js";
import { anyOrAll } from "./loops/any-or-all.js";
import { eachItem } from "./loops/each-item.js";
import { firstFoundRule } from "./loops/first-found.js";
import { keyAndValue } from "./loops/key-and-value.js";
import { mappedList } from "./loops/mapped-list.js";
import { ownKeys } from "./loops/own-keys.js";
import { esModules } from "./modules/es-modules.js";
import { powerOperator } from "./numbers/power.js";
import { ownKey } from "./objects/own-key.js";
import { spreadCopy } from "./objects/spread-copy.js";
import { blockScoped } from "./variables/block-scoped.js";
import { awaitedThen } from "./callbacks/awaited-then.js";
import { componentState } from "./components/component-state.js";
import { keptThis } from "./functions/kept-this.js";
import { restParameter } from "./functions/rest-parameter.js";
import { arrowFunction } from "./functions/arrow.js";
import { templateString } from "./texts/template.js";
import { asAssertion } from "./types/as-assertion.js";
import { caughtUnknown } from "./types/caught-unknown.js";
import { enumAdvice } from "./types/enum-advice.js";
import { namespaceAdvice } from "./types/namespace-advice.js";
import { needlessAssertion } from "./types/needless-assertion.js";
import { typeImport } from "./types/type-import.js";
import { nativeFunction } from "./utilities/native.js";
import { includes } from "./texts/includes.js";
import { sliceForSubstr } from "./texts/slice-for-substr.js";
import { startsOrEndsWith } from "./texts/starts-or-ends-with.js";

export const javascriptPack = pack("javascript", [
  guardedRead,
  readOrFallback,
  standInObject,
  valueOrFallback,
  falsyFallback,
  releasedInFinally,
  assignedIfMissing,
  guardedCall,
  needlessTest,
  leakingResource,
  includes,
  startsOrEndsWith,
  sliceForSubstr,
  powerOperator,
  ownKey,
  spreadCopy,
  spreadArguments,
  blockScoped,
  classFromPrototype,
  classFromCall,
  templateString,
  promiseForm,
  nativeFunction,
  asAssertion,
  caughtUnknown,
  enumAdvice,
  namespaceAdvice,
  needlessAssertion,
  typeImport,
  stepsAwaited,
  arrowFunction,
  keptThis,
  restParameter,
  awaitedThen,
  anyOrAll,
  eachItem,
  firstFoundRule,
  mappedList,
  ownKeys,
  keyAndValue,
  componentState,
  esModules,
]);
export default javascriptPack;
