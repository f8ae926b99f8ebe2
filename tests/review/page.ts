import { spawn, type ChildProcess } from "node:child_process";
import { existsSync } from "node:fs";
import { resolve } from "node:path";
import { chromium, type Browser } from "playwright-core";
import type { Sandbox } from "../cli/run.js";

export const CHROMIUM = ["/usr/bin/chromium", "/usr/bin/chromium-browser", "/usr/bin/google-chrome"].find(
  (path) => existsSync(path),
);
export const MAIN = resolve("dist/program/uvran.js");

export function launch(): Promise<Browser> {
  const args = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
  ];
  return chromium.launch({ executablePath: CHROMIUM!, args });
}

/** A running `uvran review`. */
export interface Running {
  readonly address: string;
  readonly child: ChildProcess;
  /** Resolves with all that it printed, when it has ended. */
  readonly ended: Promise<{ exit: number | null; out: string }>;
}

/** Starts the server of a review; resolves when it has printed its address. */
export function serve(sandbox: Sandbox, { opens = false } = {}): Promise<Running> {
  const child = spawn(process.execPath, [MAIN, "review", ...(opens ? [] : ["--no-open"])], {
    cwd: sandbox.root,
    env: { ...process.env, NO_COLOR: "1", NODE_OPTIONS: "" },
  });
  let out = "";
  const ended = new Promise<{ exit: number | null; out: string }>((done) =>
    child.on("close", (exit) => done({ exit, out })),
  );
  return new Promise((started, failed) => {
    const read = (data: Buffer): void => {
      out += String(data);
      const address = /http:\S+/.exec(out)?.[0];
      if (address !== undefined) started({ address, child, ended });
    };
    child.stdout.on("data", read);
    child.stderr.on("data", read);
    child.on("close", () => failed(new Error(`it ended: ${out}`)));
  });
}
