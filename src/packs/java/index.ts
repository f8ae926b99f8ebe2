/** Rules for Java. */
import { optionalRequired } from "./optional-required.js";
import { nullSafeEquals } from "./objects/null-safe-equals.js";
import { nullSafeText } from "./objects/null-safe-text.js";
import { nullSafeHash } from "./objects/null-safe-hash.js";
import { pack } from "../../core.js";
import { lambdaForClass } from "./functions/lambda.js";
import { lambdaExpression } from "./functions/lambda-expression.js";
import { methodReference } from "./functions/method-reference.js";
import { calledOnTheSpot } from "./functions/called-on-the-spot.js";
import { functionItself } from "./functions/function-itself.js";
import { unguardedField } from "./unguarded-field.js";
import { typePattern } from "./type-pattern.js";
import { valueOrFallback } from "./value-or-fallback.js";
import { optionalOrNull } from "./optional-or-null.js";
import { optionalResult } from "./optional-result.js";
import { needlessTest } from "./needless-test.js";
import { leakingResource } from "./leaking-resource.js";
import { countedInMap } from "./counted-in-map.js";
import { createIfAbsent } from "./create-if-absent.js";
import { lookupOrDefault } from "./lookup-or-default.js";
import { optionalConsumed } from "./optional-consumed.js";
import { optionalOfNull } from "./optional-of-null.js";
import { requiredArgument } from "./required-argument.js";
import { scopedResource } from "./scoped-resource.js";
import { anyOrAll } from "./loops/any-or-all.js";
import { eachItem } from "./loops/each-item.js";
import { iteratorLoop } from "./loops/iterator-loop.js";
import { firstFoundRule } from "./loops/first-found.js";
import { mappedList } from "./loops/mapped-list.js";
import { diamond } from "./diamond.js";
import { listSort } from "./library/list-sort.js";
import { boxedValue } from "./library/boxed-value.js";
import { unsharedText } from "./library/unshared-text.js";
import { standardCharset } from "./library/standard-charset.js";
import { standardCall } from "./utilities/standard-call.js";
import { standardOptional } from "./utilities/optional/standard-optional.js";
import { standardObjects } from "./utilities/standard-objects.js";
import { textBlock } from "./texts/text-block.js";
import { switchExpression } from "./choices/switch-expression.js";

export const javaPack = pack("java", [
  requiredArgument,
  createIfAbsent,
  lookupOrDefault,
  countedInMap,
  optionalConsumed,
  optionalOfNull,
  scopedResource,
  leakingResource,
  needlessTest,
  optionalResult,
  optionalOrNull,
  valueOrFallback,
  optionalRequired,
  nullSafeEquals,
  nullSafeHash,
  nullSafeText,
  lambdaForClass,
  lambdaExpression,
  methodReference,
  functionItself,
  calledOnTheSpot,
  unguardedField,
  anyOrAll,
  eachItem,
  iteratorLoop,
  firstFoundRule,
  mappedList,
  typePattern,
  diamond,
  switchExpression,
  textBlock,
  listSort,
  boxedValue,
  standardCharset,
  unsharedText,
  standardCall,
  standardObjects,
  standardOptional,
]);
export default javaPack;
