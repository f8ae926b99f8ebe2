import { connect, createServer } from "node:net";
import { request } from "node:http";
import { chmodSync, mkdirSync, rmSync, writeFileSync } from "node:fs";
import type { Sandbox } from "../cli/run.js";
import { serve, type Running } from "./page.js";
import { DECISIONS, decisionsOf, HIVES, idsOf, project } from "./reviewed.js";

let sandbox: Sandbox;
let running: Running;
let port: number;
let key: string;

beforeAll(async () => {
  sandbox = await project();
  running = await serve(sandbox);
  const { port: at, hash } = new URL(running.address);
  [port, key] = [Number(at), hash.slice("#key=".length)];
});

afterAll(async () => {
  running.child.kill("SIGINT");
  const { exit, out } = await running.ended;
  expect(exit).toBe(0);
  expect(out).toContain("The review has ended");
});

interface Answer {
  readonly status: number;
  readonly text: string;
  readonly headers: Record<string, unknown>;
}

/** Asks the server with the headers as they are given, which `fetch` would not let through. */
function ask(path: string, headers: Record<string, string> = {}, body?: string | Buffer): Promise<Answer> {
  return new Promise((done, failed) => {
    const asked = request(
      { host: "127.0.0.1", port, path, method: body === undefined ? "GET" : "POST", headers },
      (answer) => {
        let text = "";
        answer.on("data", (data: Buffer) => (text += String(data)));
        answer.on("end", () => done({ status: answer.statusCode!, text, headers: answer.headers }));
      },
    );
    asked.on("error", failed);
    asked.end(body);
  });
}

const JSON_BODY = { "content-type": "application/json" };
const own = (): Record<string, string> => ({ "x-uvran-key": key, ...JSON_BODY });
const decide = (said: object[], headers = own()): Promise<Answer> =>
  ask("/api/decide", headers, JSON.stringify({ said, page: "test" }));

test("the address is on loopback and has a key in it that nobody guesses", () => {
  expect(running.address).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/#key=[\w-]{32}$/);
});

test("the page comes with a policy that allows no inline script and no other site", async () => {
  const { status, headers, text } = await ask("/");
  expect(status).toBe(200);
  expect(headers["content-security-policy"]).toMatch(
    /default-src 'none'; script-src 'self';.*frame-ancestors 'none'/,
  );
  expect(text).not.toMatch(/<script(?![^>]* src=)/);
});

test.each<[string, () => Promise<Answer>, number]>([
  ["without a key", () => ask("/api/desk"), 401],
  ["with a wrong key", () => ask("/api/desk", { "x-uvran-key": `${key.slice(1)}x` }), 401],
  ["with the key in the address only", () => ask(`/api/desk?key=${key}`), 401],
  ["from another site", () => ask("/api/desk", { ...own(), origin: "http://evil.example" }), 403],
  ["from a page without an origin of its own", () => ask("/api/desk", { ...own(), origin: "null" }), 403],
  [
    "for a name that only points here",
    () => ask("/api/desk", { ...own(), host: `evil.example:${port}` }),
    421,
  ],
  ["for another port", () => ask("/", { host: "127.0.0.1:1" }), 421],
  ["for a file outside of the page", () => ask("/../cli/main.js"), 403],
  ["for a file outside of the page, in disguise", () => ask("/..%2f..%2fpackage.json"), 404],
  ["for a source of the project", () => ask("/src/hives.js"), 404],
  ["with a body that is no JSON", () => ask("/api/decide", own(), "{"), 400],
  ["with a body of another shape", () => ask("/api/decide", own(), '{"said":[{"id":1}]}'), 422],
  ["with a body of 100 MB", () => ask("/api/decide", { ...own(), "content-length": "100000000" }, "x"), 413],
  ["about a change that is not there", () => decide([{ id: "0123456789abcdef", decision: "keep" }]), 422],
])("a request %s is refused", async (_, asks, status) => {
  const answer = await asks();
  expect(answer.status).toBe(status);
  expect(answer.text).not.toContain("hive.queen");
});

test("a decision is on disk when the answer comes, and one that was made meanwhile is not written over", async () => {
  const [one] = await idsOf(sandbox);
  expect((await decide([{ id: one, decision: "keep", saw: "none" }])).status).toBe(200);
  expect(await decisionsOf(sandbox)).toEqual(["keep", undefined, undefined]);
  const late = await decide([{ id: one, decision: "drop", saw: "none" }]);
  expect([late.status, late.text]).toEqual([409, expect.stringContaining("Somebody else has decided")]);
  expect(await decisionsOf(sandbox)).toEqual(["keep", undefined, undefined]);
});

test("code and names that look like markup, and half characters, come through as they are", async () => {
  const name = "<script>alert(1)</script>'\".js";
  const odd = await project({ [name]: "const a = lot && lot.jar; // </script>\u0001\n" });
  const other = await serve(odd);
  const { port: at, hash } = new URL(other.address);
  const answer = await fetch(`http://127.0.0.1:${at}/api/desk`, {
    headers: { "x-uvran-key": hash.slice(5) },
  });
  expect(answer.headers.get("content-type")).toContain("application/json");
  const { desk } = (await answer.json()) as { desk: { texts: Record<string, string> } };
  expect(desk.texts[name]).toContain("</script>\u0001");
  other.child.kill("SIGTERM");
  await other.ended;
});

test("a decision that cannot be written is refused, and those before stay whole", async () => {
  const [one] = await idsOf(sandbox);
  const before = sandbox.read(DECISIONS);
  rmSync(sandbox.path(".uvran/tmp"), { recursive: true, force: true });
  // A file where the folder for what is not finished would be stands for a disk that takes nothing more.
  writeFileSync(sandbox.path(".uvran/tmp"), "");
  const answer = await decide([{ id: one, decision: "later" }]);
  expect(answer.status).toBeGreaterThanOrEqual(422);
  expect(sandbox.read(DECISIONS)).toBe(before);
  rmSync(sandbox.path(".uvran/tmp"), { force: true });
  expect((await decide([{ id: one, decision: "later" }])).status).toBe(200);
});

test("a client that never finishes its request does not hold the others up", async () => {
  const slow = connect(port, "127.0.0.1");
  slow.write(
    `POST /api/decide HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nx-uvran-key: ${key}\r\nContent-Length: 90\r\n\r\n{`,
  );
  expect((await ask("/api/desk", own())).status).toBe(200);
  slow.destroy();
});

test("a port that is taken, one that is none, a page without a plan: each says what to do", async () => {
  const taken = createServer();
  await new Promise<void>((done) => taken.listen(0, "127.0.0.1", done));
  const at = (taken.address() as { port: number }).port;
  const { exit, err } = sandbox.uvran("review", "--no-open", "--port", String(at));
  expect([exit, err]).toEqual([1, expect.stringContaining(`Port ${at} is taken`)]);
  await new Promise((done) => taken.close(done));
  expect(sandbox.uvran("review", "--port", "70000").err).toContain("up to 65535");
  mkdirSync(sandbox.path("empty"));
  sandbox.write("empty/uvran.config.json", "{}");
  expect(sandbox.below("empty").uvran("review").err).toContain("There is no plan");
  sandbox.below(".");
});

test("without a browser it says so and goes on", async () => {
  const bin = sandbox.path("bin");
  mkdirSync(bin);
  sandbox.write("bin/xdg-open", "#!/bin/sh\nexit 3\n");
  chmodSync(sandbox.path("bin/xdg-open"), 0o755);
  const path = process.env["PATH"];
  process.env["PATH"] = `${bin}:${path}`;
  try {
    const other = await serve(sandbox, { opens: true });
    await new Promise((done) => setTimeout(done, 700));
    other.child.kill("SIGINT");
    expect((await other.ended).out).toContain("No browser could be opened. Open the address yourself.");
  } finally {
    process.env["PATH"] = path;
  }
});

test("what a plan for another state of the files is about is not decided upon as if it were this one", async () => {
  sandbox.write("src/hives.js", `${HIVES}\n`);
  const { status, text } = await ask("/api/desk", own());
  expect(status).toBe(200);
  await new Promise((done) => setTimeout(done, 1500));
  expect(JSON.parse((await ask("/api/desk", own())).text)).toMatchObject({ outdated: ["src/hives.js"] });
  expect(text.length).toBeGreaterThan(0);
  const again = await ask("/api/propose", own(), "{}");
  expect(JSON.parse(again.text)).toMatchObject({ outdated: [] });
});
