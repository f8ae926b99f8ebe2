/** What code says, however it is spelt: the same parts in the same places for every spelling of a language. */
export {
  choice,
  hasKey,
  hasMember,
  Item,
  item,
  missing,
  present,
  Presence,
  truthy,
  type AlsoAsks,
  type Value,
} from "./choice.js";
export { choicesAt, type Choice } from "./choices.js";
export { chainsAt, type Chain, type ChainKind, type Copied, type Link, type Role } from "./chains.js";
export { guarded, takenSafely, type GuardedLimits } from "./guarded.js";
export { filled } from "./fill.js";
export { fillsAt, type Fill } from "./fills.js";
export { type Frame } from "./frame.js";
export {
  asksFor,
  itemRead,
  presenceOf,
  unnegated,
  type AskedBy,
  type Asks,
  type Demand,
  type PresenceTest,
} from "./presence-test.js";
export { required } from "./required.js";
export { scoped, type ScopedForms } from "./scoped.js";
export { unprotected, type Guard, type Held, type HeldForms, type Resource } from "./held.js";
export { type Release, type ReleaseForm } from "./releases.js";
export { ofKind, type Filled, type KindForms } from "./of-kind.js";
export { collected, type CollectedForms } from "./collected.js";
export { type Collecting, type Gathers } from "./collecting.js";
export { type Sieve, type Sifted } from "./walk.js";
export { equalOrMissing, type EqualOrMissing } from "./equal-or-missing.js";
export { firstFound, type Sought } from "./first-found.js";
export { flagged, type Flagged } from "./flagged.js";
export { brought, broughtAt, importsOf, type Brought } from "./brought.js";
export { endsOf, named } from "./named.js";
export { oneOrMany, type OneOrMany } from "./one-or-many.js";
export { onlyIf } from "./only-if.js";
export { orThrows } from "./or-throws.js";
export { passingOf, type Passing } from "./passing.js";
export { switched, type Arm, type Switched } from "./switched.js";
export { tested } from "./tested.js";
export { placesOfWord, textWord } from "./text-word.js";
export { token } from "./token.js";
export { type Loop } from "./loops.js";
export { itemText } from "./iterated.js";
export { walked, walkedByIterator, walkedByKey, type WalkedForms } from "./walked.js";
export { countedItem, filledItem } from "./filled-item.js";
export { keyedAt, type ItemPlace, type Keyed } from "./keyed.js";
export { type NearMiss } from "./near.js";
export { callOf } from "./presence-test.js";
export { isValueSeen, waysOf, type Ways } from "./ways.js";
export { isRead, isReading, type Reading, type ReadingMatch } from "./reading.js";
export { saidAt, statementAround, type ReadHere, type SaidHere } from "./said.js";
