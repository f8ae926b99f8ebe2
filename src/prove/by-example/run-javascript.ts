/**
 * Calls functions of one module, as the lines that it reads ask for, in a process of its own that can neither write files nor
 * reach the network. The first line names the module; each of the others a function and its arguments, and is answered by
 * what came of the call.
 */
import dgram from "node:dgram";
import dns from "node:dns";
import net from "node:net";
import { createInterface } from "node:readline";
import { inspect } from "node:util";
import { createJiti } from "jiti";
import type { Answer, Asked } from "./caller.js";
import type { Value } from "./value.js";

const say = process.stdout.write.bind(process.stdout);
let printed = "";
const gather = ((text: string | Uint8Array): boolean => {
  if (printed.length < MOST_PRINTED)
    printed += typeof text === "string" ? text : Buffer.from(text).toString();
  return true;
}) as typeof process.stdout.write;
process.stdout.write = gather;
process.stderr.write = gather;

const MOST_PRINTED = 20_000;
const MOST_SHOWN = 20_000;
const MOST_ITEMS = 100;

const noNetwork = (): never => {
  throw new Error("there is no network here");
};
for (const [module, names] of [
  [net.Socket.prototype, ["connect"]],
  [net.Server.prototype, ["listen"]],
  [dgram.Socket.prototype, ["bind", "send", "connect"]],
  [dns, ["lookup", "resolve", "resolve4", "resolve6"]],
  [dns.promises, ["lookup", "resolve", "resolve4", "resolve6"]],
] as const)
  for (const name of names) Reflect.set(module, name, noNetwork);
(globalThis as { fetch?: unknown }).fetch = noNetwork;

// Old and new are to see the same time and the same chance.
const TIME = Date.UTC(2024, 4, 17, 9, 30);
let chance = 1;
Math.random = () => (chance = (chance * 48_271) % 2_147_483_647) / 2_147_483_647;
Date.now = () => TIME;
const RealDate = Date;
globalThis.Date = new Proxy(RealDate, {
  construct: (target, parts, as) =>
    Reflect.construct(target, parts.length === 0 ? [TIME] : parts, as) as object,
  apply: () => new RealDate(TIME).toString(),
});

function made(value: Value): unknown {
  switch (value.is) {
    case "missing":
      return undefined;
    case "null":
      return null;
    case "nan":
      return NaN;
    case "infinity":
      return Infinity;
    case "list":
      return value.of.map(made);
    case "thing":
    case "table":
      return Object.fromEntries(value.of.map(([name, inner]) => [name, made(inner)]));
    case "date":
      return new Date(value.of);
    case "callback":
      return (): unknown => made(value.of);
    default:
      return value.of;
  }
}

function shown(value: unknown): string {
  return inspect(value, {
    depth: 8,
    maxArrayLength: 200,
    maxStringLength: 2000,
    breakLength: Infinity,
  }).slice(0, MOST_SHOWN);
}

/** What engines say of a wrong value depends on how the code is written. */
const OF_THE_ENGINE = new Set(["TypeError", "ReferenceError", "RangeError", "SyntaxError"]);

function shownError(error: unknown): string {
  if (!(error instanceof Error)) return `throws ${shown(error)}`;
  const { name, message } = error;
  return OF_THE_ENGINE.has(name) ? `throws ${name}` : `throws ${name}: ${message}`;
}

/** The result itself; of a promise what it comes to, of an iterator the first items. */
async function settled(value: unknown): Promise<unknown> {
  const result = await value;
  if (typeof result !== "object" || result === null) return result;
  const isIterator = typeof (result as Iterator<unknown>).next === "function" && Symbol.iterator in result;
  if (!isIterator) return result;
  const items: unknown[] = [];
  for (const item of result as Iterable<unknown>) if (items.push(item) >= MOST_ITEMS) break;
  return { items };
}

/** What a function that was given back does with a few simple arguments. */
const PROBES: readonly (readonly unknown[])[] = [[], [null], [0], [1, 2], ["a", "b"], [[1, 2]], [{ a: 1 }]];

async function shownCalls(given: (...args: readonly unknown[]) => unknown): Promise<string> {
  const results: string[] = [];
  for (const probe of PROBES) {
    try {
      results.push(shown(await settled(given(...structuredClone(probe)))));
    } catch (error) {
      results.push(shownError(error));
    }
  }
  return `a function that gives ${results.join("; ")}`;
}

let functions: Record<string, unknown> = {};

/** A function of the module by its name, and what it is a member of. */
function functionOf(name: string): { readonly called: unknown; readonly self: unknown } {
  const [first, ...members] = name.split(".");
  let self: unknown;
  let called = functions[first!] ?? (functions["default"] as Record<string, unknown> | undefined)?.[first!];
  for (const member of members) {
    self = called;
    called = (self as Record<string, unknown> | undefined | null)?.[member];
  }
  return { called, self };
}

async function answer(asked: Asked): Promise<Answer> {
  printed = "";
  chance = 1;
  if ("load" in asked) {
    try {
      const jiti = createJiti(import.meta.url, { fsCache: false, moduleCache: true, jsx: true });
      functions = await jiti.import<Record<string, unknown>>(asked.load);
      return { result: "loaded", threw: false, after: "", printed: "" };
    } catch (error) {
      const { message } = error as Error;
      return { result: message ?? String(error), threw: true, after: "", printed };
    }
  }
  const { called, self } = functionOf(asked.name);
  if (typeof called !== "function") {
    const result = "it is not there once its module is loaded";
    return { result, threw: true, after: "", printed, missing: true };
  }
  const args = asked.args.map(made);
  let result: string;
  let threw = false;
  try {
    const given = await settled(Reflect.apply(called, self, args));
    result = typeof given === "function" ? await shownCalls(given as () => unknown) : shown(given);
  } catch (error) {
    // How deep the stack was by then depends on how the code is written.
    if (error instanceof RangeError && /call stack/.test(error.message))
      return { result: "never stops calling itself", threw: true, after: "", printed: "" };
    result = shownError(error);
    threw = true;
  }
  return { result, threw, after: shown(args), printed };
}

const lines = createInterface({ input: process.stdin });
let queue = Promise.resolve();
process.on("uncaughtException", () => undefined);
process.on("unhandledRejection", () => undefined);
lines.on("line", (line) => {
  queue = queue.then(async () => {
    say(`${JSON.stringify(await answer(JSON.parse(line) as Asked))}\n`);
  });
});
lines.on("close", () => process.exit(0));
