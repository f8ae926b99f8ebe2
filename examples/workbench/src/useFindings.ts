import { useEffect, useState } from "react";
import { Engine, languageOfFile, loadGrammars, type FileResult, type Rule } from "uvran";
import "./grammars";

/** What the engine said of the code, or that it has not said anything yet, or why it cannot. */
export type Findings =
  | { readonly state: "loading" }
  | { readonly state: "failed"; readonly message: string }
  | { readonly state: "ready"; readonly code: string; readonly file: string; readonly result: FileResult };

/** Runs the rules over the code whenever one of them changes. */
export function useFindings(file: string, code: string, rules: readonly Rule[]): Findings {
  const [findings, setFindings] = useState<Findings>({ state: "loading" });
  useEffect(() => {
    let current = true;
    const work = async (): Promise<Findings> => {
      await loadGrammars([languageOfFile(file)!]);
      const result = await new Engine(rules).file(file, code);
      return { state: "ready", code, file, result: result ?? { changes: [], heldBack: [] } };
    };
    work()
      .catch((error: unknown): Findings => ({ state: "failed", message: String(error) }))
      .then((next) => current && setFindings(next));
    return () => {
      current = false;
    };
  }, [file, code, rules]);
  return findings;
}
