import { existsSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { cleanTemporaries, locked, stateFolder, temporaryFolder } from "../node/index.js";
import { proofSchema, type StoredProof } from "../plan/index.js";

const NAME = "proof.json";

/** Stores what a proof found, in place of what the one before did. */
export function storeProof(root: string, proof: StoredProof): Promise<void> {
  return locked(
    root,
    "prove",
    () => {
      const temporary = join(temporaryFolder(root), NAME);
      writeFileSync(temporary, `${JSON.stringify(proof, null, 1)}\n`, { flush: true });
      renameSync(temporary, join(stateFolder(root), NAME));
      cleanTemporaries(root);
    },
    PATIENCE,
  );
}

const PATIENCE = 3000;

/** What the last proof found; undefined where there is none, or none that can be read. */
export function loadProof(root: string): StoredProof | undefined {
  const file = join(root, ".uvran", NAME);
  if (!existsSync(file)) return undefined;
  try {
    return proofSchema.parse(JSON.parse(readFileSync(file, "utf8")));
  } catch {
    return undefined;
  }
}
