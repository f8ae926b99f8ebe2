import { spawn, type ChildProcess } from "node:child_process";
import { createInterface } from "node:readline";
import { join } from "node:path";
import { existsSync, writeFileSync } from "node:fs";
import { installed } from "../../node/index.js";
import { end, endMarked, MARK } from "../processes.js";
import { RUN_PYTHON } from "./run-python.js";
import type { Value } from "./value.js";

/** What a calling process is asked for. */
export type Asked = { readonly load: string } | { readonly name: string; readonly args: readonly Value[] };

/** What came of it. */
export interface Answer {
  /** The result as it is shown, or what was thrown. */
  readonly result: string;
  readonly threw: boolean;
  /** The arguments after the call. */
  readonly after: string;
  readonly printed: string;
  /** Is there no such function? */
  readonly missing?: boolean;
}

const RUN_JAVASCRIPT = installed("dist/prove/by-example/run-javascript.js");
const LOAD_SECONDS = 20;
const CALL_SECONDS = 1;
const ENDLESS: Answer = { result: "does not end", threw: true, after: "", printed: "" };

/** Calls functions of one module of a copy, in a process of its own, which is started anew when it does not answer. */
export class Caller {
  #child: ChildProcess | undefined;
  #answers: AsyncIterator<string> | undefined;

  constructor(
    readonly folder: string,
    readonly path: string,
    readonly mark: string,
    readonly isPython: boolean,
  ) {}

  /** Loads the module; gives why it cannot be loaded. */
  async load(): Promise<string | undefined> {
    this.end();
    this.#start();
    const answer = await this.#ask({ load: join(this.folder, this.path) }, LOAD_SECONDS);
    if (answer === undefined) return `it does not load in ${LOAD_SECONDS} s`;
    return answer.threw ? answer.result : undefined;
  }

  async call(name: string, args: readonly Value[]): Promise<Answer> {
    if (!this.#child) await this.load();
    return (await this.#ask({ name, args }, 2 * CALL_SECONDS)) ?? ENDLESS;
  }

  end(): void {
    const pid = this.#child?.pid;
    if (pid !== undefined) end(-pid);
    if (this.#child) endMarked(this.mark);
    this.#child = undefined;
  }

  /** Undefined where no answer came in time; then the process is ended. */
  async #ask(asked: Asked, seconds: number): Promise<Answer | undefined> {
    this.#child?.stdin?.write(`${JSON.stringify(asked)}\n`);
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<undefined>((resolve) => {
      timer = setTimeout(() => resolve(undefined), seconds * 1000);
    });
    const next = await Promise.race([this.#answers!.next(), late]);
    clearTimeout(timer);
    // Where the copy is says nothing of what the code does.
    if (next !== undefined && next.done !== true)
      return JSON.parse(next.value.replaceAll(this.folder, ".")) as Answer;
    this.end();
    return undefined;
  }

  #start(): void {
    const [command, args] = this.isPython ? this.#python() : [process.execPath, javascriptFlags()];
    const child = spawn(command, args, {
      cwd: this.folder,
      detached: true,
      stdio: ["pipe", "pipe", "ignore"],
      env: { ...process.env, [MARK]: this.mark, NO_COLOR: "1", TZ: "UTC", PYTHONHASHSEED: "0" },
    });
    child.on("error", () => undefined);
    child.stdin.on("error", () => undefined);
    this.#child = child;
    this.#answers = createInterface({ input: child.stdout })[Symbol.asyncIterator]();
  }

  #python(): [string, string[]] {
    const program = join(this.folder, "..", "run_python.py");
    writeFileSync(program, RUN_PYTHON);
    const own = [".venv", "venv"]
      .map((name) => join(this.folder, name, "bin", "python"))
      .find((file) => existsSync(file));
    return [own ?? "python3", ["-B", program, this.folder, String(CALL_SECONDS)]];
  }
}

/** What keeps a process of Node from writing files and starting others, as this version of it calls that. */
function javascriptFlags(): string[] {
  const known = process.allowedNodeEnvironmentFlags;
  const permission = ["--permission", "--experimental-permission"].find((flag) => known.has(flag)) ?? "";
  const guards = permission === "" ? [] : [permission, "--allow-fs-read=*"];
  return [...guards, "--no-warnings", "--max-old-space-size=512", RUN_JAVASCRIPT];
}
