//! target 2022
export function ring(done: string[] | (() => void)): void {
  if (typeof done === "function") done(); //! likely
}
export function call(done: (() => void) | undefined): void {
  if (typeof done === "function") done(); //! certain
}
