import { readdirSync, readFileSync } from "node:fs";
import { stringify as asYaml } from "yaml";
import {
  allLanguages,
  Engine,
  loadGrammars,
  makePlan,
  PlanError,
  readDecisions,
  readPlan,
  rule,
  RuleError,
  type Rule,
} from "uvran/core";
import * as core from "uvran/core";
import { loadProject, Problem } from "uvran/node";
import { Sandbox } from "./cli/run.js";
import { Random } from "../bench/fuzz/random.js";

const random = new Random(11);

/** A value with one part of it replaced, taken out, or doubled. */
function spoilt(value: unknown): unknown {
  if (Array.isArray(value)) {
    if (value.length === 0 || random.below(4) === 0) return other(value);
    const at = random.below(value.length);
    const rest: unknown[] = [...(value as unknown[])];
    rest.splice(at, 1, ...random.of([[], [rest[at], rest[at]], [spoilt(rest[at])]]));
    return rest;
  }
  if (typeof value !== "object" || value === null || random.below(6) === 0) return other(value);
  const names = Object.keys(value);
  if (names.length === 0) return other(value);
  const name = random.of(names);
  const { [name]: part, ...rest } = value as Record<string, unknown>;
  return random.below(5) === 0
    ? rest
    : { ...rest, [random.below(9) === 0 ? "__proto__x" : name]: spoilt(part) };
}

function other(value: unknown): unknown {
  return random.of<unknown>([
    ...[null, -1, 1e21, "", "../../etc/passwd", "\u0000", [], {}, true, NaN, "\uD800", [[]]],
    typeof value === "string" ? `${value}x` : 0,
  ]);
}

/** Text with a piece taken out, put in, or in another place. */
function torn(text: string): string {
  const [a, b] = [random.below(text.length + 1), random.below(text.length + 1)];
  return random.of([
    () => text.slice(0, a),
    () => text.slice(0, a) + text.slice(a + random.below(9)),
    () => text.slice(0, a) + random.of(['"', "{", "}", "\\", "\u0000", "${", "…", "\r"]) + text.slice(a),
    () => text.slice(0, a) + text.slice(b, b + 20) + text.slice(a),
  ])();
}

/** Throws what was thrown unless it is one of those that say what is wrong with an input. */
function says<T>(work: () => T, ...errors: readonly (new (...args: never[]) => Error)[]): T | undefined {
  try {
    return work();
  } catch (error) {
    if (errors.some((kind) => error instanceof kind)) return undefined;
    throw error;
  }
}

async function plan(): Promise<object> {
  const engine = new Engine((await import("uvran/packs/javascript")).default.rules);
  const text = "if (hive && hive.queen) mark(hive);\nf(x !== null && x !== undefined ? x : 1);\n";
  const result = (await engine.file("a.js", text))!;
  return makePlan([{ path: "a.js", hash: core.hashText(text), result }]);
}

test("a plan and decisions that are spoilt are read or refused, and nothing else", async () => {
  const whole = await plan();
  const decisions = { id: "a", decision: "keep", path: "a.js", rules: ["a/b"], note: "n" };
  for (let i = 0; i < 4000; i++) {
    const text = i % 2 === 0 ? JSON.stringify(spoilt(whole)) : torn(JSON.stringify(whole));
    says(() => readPlan(text), PlanError);
    const line = i % 2 === 0 ? JSON.stringify(spoilt(decisions)) : torn(JSON.stringify(decisions));
    says(() => readDecisions(`${line}\n`), PlanError);
  }
});

test("a config that is spoilt is loaded or refused, and nothing else", async () => {
  const config = {
    rules: { "javascript/arrow": false, "python/none-to-default": true },
    targets: { java: "17" },
    handles: [{ language: "python", acquire: "open_lot(…)", release: "handle.close()" }],
    library: { calls: [{ language: "python", in: "lots", calls: ["weigh"], effect: "pure" }] },
    checks: [{ name: "prints", run: "true", compare: "output" }],
    leaveOut: ["old/"],
    formatters: [{ files: ["*.js"], run: "true {files}" }],
  };
  const sandbox = new Sandbox();
  for (let i = 0; i < 300; i++) {
    const text = JSON.stringify(i % 3 === 0 ? torn(JSON.stringify(config)) : spoilt(config));
    sandbox.write("uvran.config.json", i % 3 === 0 ? (JSON.parse(text) as string) : text);
    await loadProject(sandbox.root).catch((error: unknown) => {
      if (!(error instanceof Problem)) throw error;
    });
  }
});

test("a table of changes that is spoilt is loaded or refused, and nothing else", async () => {
  const folder = "examples/combwork";
  const name = readdirSync(folder, { recursive: true, encoding: "utf8" }).find((file) =>
    /^moves.*\.(ya?ml|json)$/.test(file),
  );
  const { parse } = await import("yaml");
  const table = parse(readFileSync(`${folder}/${name!}`, "utf8")) as unknown;
  const sandbox = new Sandbox({ "uvran.config.json": '{"tables": ["t.yaml"]}' });
  for (let i = 0; i < 150; i++) {
    sandbox.write("t.yaml", i % 3 === 0 ? torn(asYaml(table)) : asYaml(spoilt(table)));
    await loadProject(sandbox.root).catch((error: unknown) => {
      if (!(error instanceof Problem)) throw error;
    });
  }
});

const TAGS = [
  "javascript",
  "typescript",
  "python",
  "java",
  "cpp",
  "csharp",
  "php",
  "ruby",
  "powershell",
] as const;

const template = (...texts: string[]): TemplateStringsArray => Object.assign(texts, { raw: texts });

test.each(TAGS)("a pattern that is spoilt is refused or runs: %s", async (name) => {
  await loadGrammars(allLanguages());
  const { a } = core.holes({ a: "expression" });
  const ending = core.languageOf(name).extensions[0]!;
  const code = core.languageOf(name).id.startsWith("p") ? "if ($x) { f($x); }" : "if (x) { f(x, 1); }";
  let ran = 0;
  for (let i = 0; i < 120; i++) {
    const [one, two] = [torn(code), torn("g(1)")];
    const made = says(
      (): Rule =>
        rule({
          ...{ id: "own/one", kind: "idiom", title: "Own", why: "It is old.", trials: [] },
          was: core[name](template(one, two), a),
          becomes: core[name](template("h(", ")"), a),
        }),
      RuleError,
    );
    if (!made) continue;
    ran++;
    await new Engine([made]).file(`a${ending}`, code).catch((error: unknown) => {
      if (!(error instanceof RuleError)) throw error;
    });
  }
  expect(ran).toBeGreaterThan(10);
});
