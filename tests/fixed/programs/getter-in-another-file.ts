//! target 2022
import { Lot } from "./lot";
interface Plain {
  name: string | undefined;
}
export function keeper(lot: Lot, plain: Plain): string[] {
  const a = lot.keeper !== undefined ? lot.keeper : "none"; //! possible
  const b = plain.name !== undefined ? plain.name : "none"; //! certain
  return [a, b];
}
//! file lot.ts
export interface Lot {
  keeper: string | undefined;
}
let read = 0;
export class Counted implements Lot {
  get keeper(): string | undefined {
    return read++ === 0 ? "me" : undefined;
  }
}
