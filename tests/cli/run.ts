import { spawnSync } from "node:child_process";
import { chmodSync, cpSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";

/** What the command line answered. */
export interface Answered {
  readonly exit: number | null;
  readonly out: string;
  readonly err: string;
}

const MAIN = resolve("dist/program/uvran.js");

/** What a project says of its versions: those that are assumed anyway, so that nothing is less sure for want of them. */
const VERSIONS = "nodejs 18.0.0\npython 3.9.0\nruby 2.7.0\njava 8.0.0\n";

/** A throw-away project to run the command line in. */
export class Sandbox {
  readonly root = mkdtempSync(join(tmpdir(), "uvran-test-"));
  #user: { uid?: number } = {};
  #folder = ".";

  constructor(files: Readonly<Record<string, string | Uint8Array>> = {}) {
    this.write(".tool-versions", VERSIONS);
    for (const [path, content] of Object.entries(files)) this.write(path, content);
  }

  /** The demo codebase. */
  static demo(): Sandbox {
    const sandbox = new Sandbox();
    cpSync("examples/thistledown", sandbox.root, { recursive: true });
    return sandbox;
  }

  /** Runs what follows without the rights of the superuser, where the tests have them. */
  asNobody(): this {
    if (process.getuid?.() === 0) this.#user = { uid: 65534 };
    chmodSync(this.root, 0o755);
    return this;
  }

  /** The same project, with commands run in one of its folders. */
  below(folder: string): this {
    this.#folder = folder;
    return this;
  }

  path(path: string): string {
    return join(this.root, path);
  }

  write(path: string, content: string | Uint8Array): void {
    mkdirSync(dirname(this.path(path)), { recursive: true });
    writeFileSync(this.path(path), content);
  }

  read(path: string): string {
    return readFileSync(this.path(path), "utf8");
  }

  uvran(...args: string[]): Answered {
    return this.run(process.execPath, MAIN, ...args);
  }

  run(command: string, ...args: string[]): Answered {
    const env = { ...process.env, NO_COLOR: "1", NODE_OPTIONS: "", NODE_PATH: resolve("node_modules") };
    const { status, stdout, stderr } = spawnSync(command, args, {
      cwd: this.path(this.#folder),
      encoding: "utf8",
      env,
      ...this.#user,
    });
    return { exit: status, out: stdout, err: stderr };
  }
}

export const OLD_JS = "if (hive && hive.queen) mark(hive);\n";
export const NEW_JS = "if (hive?.queen) mark(hive);\n";
