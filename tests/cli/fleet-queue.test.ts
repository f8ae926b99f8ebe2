import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { once } from "node:events";
import { closeSync, existsSync, mkdirSync, openSync, readdirSync, readFileSync } from "node:fs";
import { createServer, type AddressInfo } from "node:net";
import { join, resolve } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { BRANCH, copyOf, fleetOf, OLD, subjects, tree, TOUCHY } from "./fleets.js";
import type { Sandbox } from "./run.js";

const MAIN = resolve("dist/program/uvran.js");
const hasRedis = spawnSync("redis-server", ["--version"]).status === 0;
if (!hasRedis) console.warn("redis-server is not installed, so fleets over a queue were not tested");

const running = new Set<ChildProcess>();
afterEach(() => {
  for (const child of running) child.kill("SIGKILL");
});

/** What a process says is kept, so that a failure can be understood. */
const SAID = "said.txt";

function start(cwd: string, command: string, ...args: string[]): ChildProcess {
  mkdirSync(cwd, { recursive: true });
  const said = openSync(join(cwd, SAID), "a");
  const env = { ...process.env, NODE_OPTIONS: "" };
  const child = spawn(command, args, { cwd, stdio: ["ignore", said, said], env });
  closeSync(said);
  running.add(child);
  child.once("exit", () => running.delete(child));
  return child;
}

async function freePort(): Promise<number> {
  const server = createServer().listen(0, "127.0.0.1");
  await once(server, "listening");
  const { port } = server.address() as AddressInfo;
  server.close();
  return port;
}

async function killed(child: ChildProcess, how: NodeJS.Signals = "SIGKILL"): Promise<void> {
  const gone = once(child, "exit");
  child.kill(how);
  await gone;
}

const redis = (sandbox: Sandbox, port: number): ChildProcess =>
  start(
    sandbox.path("redis"),
    "redis-server",
    "--port",
    `${port}`,
    "--appendonly",
    "yes",
    "--appendfsync",
    "always",
  );
const worker = (sandbox: Sandbox, name: string, url: string): ChildProcess =>
  start(sandbox.path(name), process.execPath, MAIN, "fleet", "--worker", "--queue", url, "--at-once", "1");

(hasRedis ? test : test.skip)(
  "workers, the queue and who waits can be cut off: nothing is lost, and nothing is done twice",
  async () => {
    const sandbox = fleetOf({ hives: TOUCHY, lots: OLD, queens: OLD, jars: OLD }, { attempts: 1 });
    const port = await freePort();
    const url = `redis://127.0.0.1:${port}`;
    const queue = redis(sandbox, port);
    const first = worker(sandbox, "worker-1", url);
    const waits = start(sandbox.root, process.execPath, MAIN, "fleet", "--queue", url);
    await sleep(4000);
    await killed(first);
    await killed(waits);
    const second = worker(sandbox, "worker-2", url);
    worker(sandbox, "worker-3", url);
    const again = start(sandbox.root, process.execPath, MAIN, "fleet", "--queue", url);
    const ended = once(again, "exit");
    await sleep(2500);
    // To be stopped does not count as an attempt.
    await killed(second, "SIGINT");
    worker(sandbox, "worker-2", url);
    await killed(queue);
    await sleep(1500);
    redis(sandbox, port);
    const ending = await ended;
    const said = ["", "worker-1", "worker-2", "worker-3", "redis"].map((name) =>
      readFileSync(join(sandbox.root, name, SAID), "utf8"),
    );
    expect({ ending, said }).toEqual({ ending: [0, null], said });

    const { out } = sandbox.uvran("fleet", "--show");
    expect(out).toContain("hives   done     2 changes, 1 committed in 1 commit; 1 set aside by the checks\n");
    for (const name of ["lots", "queens", "jars"]) {
      expect(out).toContain(`${name.padEnd(6)}  done     2 changes, 2 committed in 2 commits\n`);
      expect(subjects(sandbox, name)).toHaveLength(2);
      expect(tree(sandbox, name)).toBe(tree(sandbox, "lots"));
    }
    expect(subjects(sandbox, "hives")).toHaveLength(1);
    expect(sandbox.read("uvran.fleet.work/repositories/lots/report.html")).toContain("The plan for lots");
    expect(sandbox.run("git", "-C", copyOf("lots"), "push", "--quiet", "origin", "HEAD").exit).toBe(0);
    // Once more, and no repository is worked on: neither by who did it, nor by who did it as well, nor by somebody new.
    const folder = "worker-2/uvran.worker/repositories";
    for (const id of readdirSync(sandbox.path(folder))) {
      const state = `${folder}/${id}/state.json`;
      if (!existsSync(sandbox.path(state))) continue;
      const own = JSON.parse(sandbox.read(state)) as object;
      sandbox.write(state, JSON.stringify({ ...own, seconds: 77 }));
    }
    const third = sandbox.uvran("fleet", "--queue", url);
    expect(third.err).toMatch(/^(.*as before.*\n){4}$/);
    for (const child of running) if (child.spawnargs.includes("--worker")) await killed(child);
    worker(sandbox, "worker-4", url);
    const fourth = sandbox.uvran("fleet", "--queue", url);
    expect(fourth.err).toMatch(/^(.*as before.*\n){4}$/);
    // A branch that is gone is made again.
    sandbox.run("git", "-C", copyOf("lots"), "update-ref", "-d", `refs/heads/${BRANCH}`);
    const fifth = sandbox.uvran("fleet", "--queue", url);
    expect(fifth.err.match(/as before/g) ?? fifth.err).toHaveLength(3);
    expect(fifth.exit).toBe(0);
    expect(subjects(sandbox, "lots")).toHaveLength(2);
  },
  300_000,
);

test("a queue that is none is refused", () => {
  const sandbox = fleetOf({});
  sandbox.write("list.yaml", "repositories: [a]");
  expect(sandbox.uvran("fleet", "list.yaml", "--queue", "nowhere").err).toContain(
    '"nowhere" is no address of a Redis',
  );
  expect(sandbox.uvran("fleet", "--worker").err).toContain("--worker needs --queue");
  expect(sandbox.uvran("fleet", "list.yaml", "--worker", "--queue", "redis://a").err).toContain(
    "name no list",
  );
});
