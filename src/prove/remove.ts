import { existsSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";

/** Removes the folder of one proof, and the one around it once it is empty. */
export function removeFolder(folder: string): void {
  rmSync(folder, { recursive: true, force: true, maxRetries: 3 });
  const around = join(folder, "..");
  if (existsSync(around) && readdirSync(around).length === 0)
    rmSync(around, { recursive: true, force: true });
}
