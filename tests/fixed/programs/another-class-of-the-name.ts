//! target 2022
import type { Lot } from "./counted";
import type { Jar } from "shop";
export function keeper(lot: Lot, jar: Jar): string[] {
  const a = lot.keeper != null ? lot.keeper : "none"; //! likely
  const b = jar.label != null ? jar.label : "none"; //! likely
  return [a, b];
}
//! file lot.ts
export interface Lot {
  keeper: string | undefined;
}
export interface Jar {
  label: string | undefined;
}
//! file counted.ts
export interface Lot {
  readonly id: number;
}
