declare let probe: (() => void) | undefined;
export function look(): void {
  if (typeof probe !== "undefined") probe();
}
