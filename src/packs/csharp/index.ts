/** Rules for C#. */
import { pack } from "../../core.js";
import { namedTuple } from "./tuples/named-tuple.js";
import { namedItems } from "./tuples/named-items.js";
import { namedResult } from "./tuples/named-result.js";
import { nameOf } from "./names/name-of.js";
import { emptyIdentifier } from "./names/empty-identifier.js";
import { nestedConditional } from "./choices/nested-conditional.js";
import { switchExpression } from "./choices/switch-expression.js";
import { switchValue } from "./choices/switch-value.js";
import { needlessTest } from "./needless-test.js";
import { leakingResource } from "./leaking-resource.js";
import { assignedIfMissing } from "./assigned-if-missing.js";
import { guardedRead } from "./guarded-read.js";
import { guardedTruth } from "./guarded-truth.js";
import { nullOrEmpty } from "./null-or-empty.js";
import { nullTest } from "./null-test.js";
import { scopedLock } from "./scoped-lock.js";
import { scopedResource } from "./scoped-resource.js";
import { thrownIfMissing } from "./thrown-if-missing.js";
import { lookupOrDefault } from "./lookup-or-default.js";
import { valueOrFallback } from "./value-or-fallback.js";
import { anyOrAll } from "./loops/any-or-all.js";
import { eachItem } from "./loops/each-item.js";
import { iteratorLoop } from "./loops/iterator-loop.js";
import { firstFoundRule } from "./loops/first-found.js";
import { mappedList } from "./loops/mapped-list.js";
import { interpolatedText } from "./texts/interpolated.js";
import { outVariable } from "./out-variable.js";
import { testedType } from "./tested-type.js";
import { typePattern } from "./type-pattern.js";

export const csharpPack = pack("csharp", [
  valueOrFallback,
  lookupOrDefault,
  assignedIfMissing,
  guardedRead,
  guardedTruth,
  thrownIfMissing,
  nullTest,
  nullOrEmpty,
  scopedResource,
  scopedLock,
  leakingResource,
  needlessTest,
  nameOf,
  emptyIdentifier,
  switchExpression,
  switchValue,
  nestedConditional,
  namedTuple,
  namedResult,
  namedItems,
  anyOrAll,
  eachItem,
  iteratorLoop,
  firstFoundRule,
  mappedList,
  interpolatedText,
  typePattern,
  testedType,
  outVariable,
]);
export default csharpPack;
