/** Rules for Python. */
import { pack } from "../../core.js";
import { needlessTest } from "./needless-test.js";
import { assignedInTest } from "./assigned-in-test.js";
import { defaultDict } from "./default-dict.js";
import { filledDict } from "./filled-dict.js";
import { lookupOrDefault } from "./lookup-or-default.js";
import { leakingResource } from "./leaking-resource.js";
import { attributeOrDefault } from "./attribute-or-default.js";
import { branchToValue } from "./branch-to-value.js";
import { indexAndItem } from "./index-and-item.js";
import { removedIfThere } from "./removed-if-there.js";
import { unnamedResource } from "./unnamed-resource.js";
import { noneToDefault } from "./none-to-default.js";
import { scopedLock } from "./scoped-lock.js";
import { scopedMany } from "./scoped-many.js";
import { bareSuper } from "./classes/bare-super.js";
import { needlessBase } from "./classes/needless-base.js";
import { longChain } from "./calls/long-chain.js";
import { firstFoundRule } from "./loops/first-found.js";
import { anyOrAll } from "./loops/any-or-all.js";
import { summed } from "./loops/summed.js";
import { comprehension } from "./loops/comprehension.js";
import { keyAndValue } from "./loops/key-and-value.js";
import { yieldFrom } from "./loops/yield-from.js";
import { modelBase } from "./models/model-base.js";
import { statementApart } from "./models/statement-apart.js";
import { typedColumns } from "./models/typed-columns.js";
import { snakeCaseFunction } from "./names/snake-case.js";
import { loopElse } from "./loops/loop-else.js";
import { pairs } from "./loops/pairs.js";
import { needlessConversion } from "./types/needless-conversion.js";
import { abstractCollections } from "./modules/abstract-collections.js";
import { caughtAs } from "./two/caught-as.js";
import { raiseCall } from "./two/raise-call.js";
import { oldNumbers } from "./two/old-numbers.js";
import { goneMethods } from "./two/gone-methods.js";
import { goneNames } from "./two/gone-names.js";
import { printCall } from "./two/print-call.js";
import { utcNow } from "./dates/utc-now.js";
import { plainAssert } from "./tests/plain-assert.js";
import { assertNames } from "./tests/assert-names.js";
import { builtinTypes } from "./types/builtin-types.js";
import { unionOperator } from "./types/union-operator.js";
import { formatCall } from "./texts/format-call.js";
import { addedText } from "./texts/added-text.js";
import { pathValue } from "./paths/path-value.js";
import { needlessPath } from "./paths/needless-path.js";
import { pairedSetup } from "./tests/paired-setup.js";
import { execCall } from "./two/exec-call.js";
import { decoratedRule } from "./functions/decorated.js";
import { earlyExit } from "./functions/early-exit.js";
import { namedLambda } from "./functions/named-lambda.js";
import { lateDefinition } from "./functions/late-definition.js";
import { signature } from "./types/signature.js";
import { keywordArguments } from "./calls/keyword-arguments.js";
import { dataClass } from "./classes/data-class.js";
import { percentFormat } from "./texts/percent-format.js";
import { scopedResource } from "./scoped-resource.js";

export const pythonPack = pack("python", [
  indexAndItem,
  scopedResource,
  scopedLock,
  scopedMany,
  branchToValue,
  attributeOrDefault,
  noneToDefault,
  leakingResource,
  unnamedResource,
  lookupOrDefault,
  filledDict,
  removedIfThere,
  defaultDict,
  assignedInTest,
  needlessTest,
  percentFormat,
  formatCall,
  addedText,
  pathValue,
  needlessPath,
  pairedSetup,
  execCall,
  decoratedRule,
  earlyExit,
  namedLambda,
  lateDefinition,
  signature,
  keywordArguments,
  dataClass,
  bareSuper,
  needlessBase,
  keyAndValue,
  yieldFrom,
  comprehension,
  longChain,
  anyOrAll,
  firstFoundRule,
  summed,
  builtinTypes,
  unionOperator,
  assertNames,
  utcNow,
  abstractCollections,
  goneNames,
  goneMethods,
  printCall,
  caughtAs,
  raiseCall,
  oldNumbers,
  plainAssert,
  pairs,
  loopElse,
  needlessConversion,
  modelBase,
  typedColumns,
  statementApart,
  snakeCaseFunction,
]);
export default pythonPack;
