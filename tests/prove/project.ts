import { readdirSync, readFileSync } from "node:fs";
import type { Check } from "uvran/node";
import { Sandbox } from "../cli/run.js";

/** A file in which one change breaks what is said of nothing: an empty remark becomes no remark. */
export const FALLBACK = 'exports.remark = (text) => text || "none";\n';

/** A project of files and checks, with its plan made. Changes of `||` are among what is proved. */
export function planned(
  files: Readonly<Record<string, string>>,
  checks: readonly Check[],
  config: object = {},
): Sandbox {
  const sandbox = new Sandbox({ ...files, "uvran.config.json": JSON.stringify({ checks, ...config }) });
  sandbox.uvran("propose");
  return sandbox;
}

/** `uvran prove` for all changes, as JSON. */
export function proved(sandbox: Sandbox, ...options: string[]): ProvedJson {
  const { out, err } = sandbox.uvran("prove", "--trust", "possible", "--json", ...options);
  if (out === "") throw new Error(err);
  return JSON.parse(out) as ProvedJson;
}

export interface ProvedJson {
  readonly checks: readonly {
    readonly name: string;
    readonly verdict: string;
    readonly why?: string;
    readonly summary: string;
    readonly lines: readonly string[];
    readonly figures: readonly { readonly what: string; readonly is: string; readonly before: number[] }[];
    readonly before: { readonly output: string; readonly exit: number | null };
  }[];
  readonly kept: readonly string[];
  readonly setAside: readonly {
    readonly path: string;
    readonly line: number;
    readonly check: string;
    readonly lines: readonly string[];
  }[];
  readonly unsettled: readonly { readonly check: string; readonly why: string }[];
  readonly runs: number;
}

/** The processes that run with some text in their command line. */
export function processesWith(text: string): string[] {
  return readdirSync("/proc").filter((name) => {
    try {
      return /^\d+$/.test(name) && readFileSync(`/proc/${name}/cmdline`, "utf8").includes(text);
    } catch {
      return false;
    }
  });
}
