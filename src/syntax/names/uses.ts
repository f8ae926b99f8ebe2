import type { Declares, Does, NameUse, UseFunction } from "../name-facts.js";

/** A use that declares the name. */
export const declaring = (does: Does, what: Declares): NameUse => ({ does, declares: what });
export const reads: NameUse = { does: "read" };
export const writes: NameUse = { does: "write" };
export const updates: NameUse = { does: "update" };
export const passes: NameUse = { does: "passed" };
/** A member of something that is not written out. */
export const memberOfSomething: NameUse = { does: "read", memberOf: "" };

/** The name of an argument. */
export const argumentName: NameUse = { ...memberOfSomething, named: true };

/** An assignment whose operator stands in a field: `=` writes, all others change the old value. */
export const assigns: UseFunction = (_name, target) =>
  target.parent?.child("operator")?.kind === "=" ? writes : updates;
