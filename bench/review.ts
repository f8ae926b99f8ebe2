/**
 * How a review of many changes feels: time until the first change stands on the page, time per key, time per decision on
 * the server, all beside the same figures for a small plan in the same run. Usage: npx jiti bench/review.ts [CHANGES]
 */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { performance } from "node:perf_hooks";
import type { Page } from "playwright-core";
import { Workspace } from "uvran/workspace";
import { serveReview } from "../dist/serve/index.js";
import { CHROMIUM, launch } from "../tests/review/page.js";

const MANY = Number(process.argv[2] ?? 5000);
const FEW = 50;
const KEYS = 40;
const PER_FILE = 25;

/** A project with as many changes, in files of a few hundred lines. */
async function projectOf(changes: number): Promise<string> {
  const root = mkdtempSync(join(tmpdir(), "uvran-bench-"));
  mkdirSync(join(root, "src"));
  for (let file = 0; file * PER_FILE < changes; file++) {
    const functions = Array.from({ length: Math.min(PER_FILE, changes - file * PER_FILE) }, (_, i) => {
      const name = `hive${file}_${i}`;
      return i % 3 === 2
        ? `export function ${name}(queen) {\n  return queen !== null && queen !== undefined ? queen : "none";\n}\n`
        : `export function ${name}(hive) {\n  if (hive && hive.queen) mark(hive);\n  return ${i};\n}\n`;
    });
    writeFileSync(join(root, "src", `hives${file}.js`), functions.join("\n"));
  }
  await (await Workspace.open(root)).propose();
  return root;
}

interface Figures {
  readonly first: number;
  readonly step: number;
  readonly decision: number;
  readonly search: number;
}

const median = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1]!;

/** Presses a key and waits until the page has drawn another change. As text, since it runs in the browser. */
const TIMED = `async (pressed) => {
  const title = () => document.querySelector(".facts code")?.textContent ?? "";
  const was = title();
  const start = performance.now();
  document.body.dispatchEvent(new KeyboardEvent("keydown", { key: pressed, bubbles: true }));
  while (title() === was) await new Promise(requestAnimationFrame);
  await new Promise(requestAnimationFrame);
  return performance.now() - start;
}`;

function timed(page: Page, key: string): Promise<number> {
  return page.evaluate<number>(`(${TIMED})(${JSON.stringify(key)})`);
}

async function measure(root: string): Promise<Figures> {
  const workspace = await Workspace.open(root);
  const server = await serveReview(workspace, { plan: workspace.plan(), port: 0, view: "" });
  const browser = await launch();
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const start = performance.now();
    await page.goto(server.address);
    await page.locator(".sheet .difference .cm-content").first().waitFor();
    const first = performance.now() - start;
    const steps: number[] = [];
    for (let i = 0; i < KEYS; i++) steps.push(await timed(page, "j"));
    const decisions: number[] = [];
    for (let i = 0; i < KEYS; i++) decisions.push(await timed(page, "k"));
    const words = performance.now();
    await page.getByLabel("Search", { exact: true }).fill("hive1_ queen");
    await page.locator(".progress", { hasText: /of (?!50|5000)/ }).waitFor();
    return { first, step: median(steps), decision: median(decisions), search: performance.now() - words };
  } finally {
    await browser.close();
    await server.close();
  }
}

if (!CHROMIUM) throw new Error("there is no Chromium on this machine");
const [few, many] = [await projectOf(FEW), await projectOf(MANY)];
const shown = (value: number): string => `${value.toFixed(0)} ms`.padStart(9);
console.log(`changes       first      step  decision    search`);
for (const [count, root] of [
  [FEW, few],
  [MANY, many],
] as const) {
  const { first, step, decision, search } = await measure(root);
  console.log(
    `${String(count).padStart(7)} ${shown(first)} ${shown(step)} ${shown(decision)} ${shown(search)}`,
  );
  rmSync(root, { recursive: true, force: true });
}
