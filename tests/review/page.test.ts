import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { Browser, Page } from "playwright-core";
import { Sandbox } from "../cli/run.js";
import { CHROMIUM, launch, serve, type Running } from "./page.js";
import { DECISIONS, decisionsOf, HIVES, project, propose, reviewOf } from "./reviewed.js";

if (!CHROMIUM) console.warn("skipped: no Chromium on this machine, so the page of the review is not tried");

const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

(CHROMIUM ? describe : describe.skip)("the page of the review in a browser", () => {
  let browser: Browser;
  let page: Page;
  let running: Running | undefined;
  const complaints: string[] = [];

  beforeAll(async () => {
    browser = await launch();
  });

  afterAll(async () => {
    await browser?.close();
    expect(complaints).toEqual([]);
  });

  afterEach(async () => {
    await page.close();
    running?.child.kill("SIGKILL");
    running = undefined;
  });

  interface Screen {
    readonly width?: number;
    readonly height?: number;
    readonly scheme?: "light" | "dark";
  }

  async function open(
    sandbox: Sandbox,
    view = "",
    { width = 1280, height = 800, scheme = "light" }: Screen = {},
  ): Promise<void> {
    running ??= await serve(sandbox);
    page = await browser.newPage({ viewport: { width, height }, colorScheme: scheme });
    page.on("pageerror", (error) => complaints.push(error.message));
    page.on("console", (message) => {
      const isMine = message.type() === "error" && !/status of (409|422)/.test(message.text());
      if (isMine) complaints.push(message.text());
    });
    await page.goto(running.address + view);
    await page.locator(".sheet").waitFor();
  }

  const press = async (...keys: string[]): Promise<void> => {
    for (const key of keys) await page.keyboard.press(key);
  };
  const said = (text: string): Promise<void> => page.locator(".said-last", { hasText: text }).waitFor();
  const decided = (text: string): Promise<void> => page.locator(".progress", { hasText: text }).waitFor();

  test("20 decisions by keyboard, an edit by hand, reload, resume, a changed file, a new plan, apply, undo", async () => {
    const files = Object.fromEntries(Array.from({ length: 8 }, (_, i) => [`src/hives${i}.js`, HIVES]));
    const sandbox = await project(files);
    await open(sandbox);
    for (let i = 0; i < 19; i++) {
      const key = "kkdl"[i % 4]!;
      const was = await page.locator(".item[aria-current]").innerText();
      await press(key);
      await decided(`${i + 1} of 24 decided`);
      expect(await page.locator(".item[aria-current]").innerText()).not.toBe(was);
    }
    await press("u");
    await decided("18 of 24 decided");
    await press("d");
    await decided("19 of 24 decided");
    await press("e");
    await page.locator(".lines-editor .cm-content").waitFor();
    await press("End");
    await page.keyboard.insertText(" // looked at");
    await press("Control+Enter");
    await decided("20 of 24 decided");
    await page.locator(".mark", { hasText: "edited by hand" }).waitFor();

    await page.reload();
    await decided("20 of 24 decided: 11 kept, 5 dropped, 4 later");
    const before = await decisionsOf(sandbox);
    sandbox.write("src/hives0.js", `// One line more.\n${HIVES}`);
    await page.getByText("The plan does not fit any more: src/hives0.js has changed").waitFor();
    await press("p");
    await page.getByText("The plan does not fit any more").waitFor({ state: "detached" });
    await decided("20 of 24 decided: 11 kept, 5 dropped, 4 later");
    expect(await decisionsOf(sandbox)).toEqual(before);

    const { out } = sandbox.uvran("apply", "--only-kept");
    expect(out).toContain("11 changes in");
    expect(sandbox.read("src/hives6.js")).toContain("// looked at");
    expect(sandbox.uvran("undo").exit).toBe(0);
    expect(sandbox.read("src/hives6.js")).toBe(HIVES);
  });

  test("text by hand that does not parse is refused, with the reason, and nothing is decided", async () => {
    const sandbox = await project();
    await open(sandbox);
    await press("e");
    await page.locator(".lines-editor .cm-content").waitFor();
    await page.keyboard.insertText("if (");
    await press("Control+Enter");
    await page.getByText("would have a syntax error, so it was not taken").waitFor();
    expect(await decisionsOf(sandbox)).toEqual([undefined, undefined, undefined]);
    await press("Escape", "k");
    await decided("1 of 3");
  });

  test("what is alike is decided together, with a note, and taken back together", async () => {
    const sandbox = await project({ "a.js": HIVES, "b.js": HIVES, "c.js": HIVES });
    await open(sandbox);
    await press("n");
    await page.keyboard.insertText("all seen");
    await press("Enter", "s");
    const dialog = page.locator("dialog");
    await expect(dialog.locator("h2").innerText()).resolves.toBe("6 changes that are alike");
    await expect(dialog.locator(".sample").count()).resolves.toBe(3);
    await press("d");
    await decided("6 of 9 decided: 0 kept, 6 dropped");
    const review = await reviewOf(sandbox);
    expect(review.decisions().map(({ note }) => note)).toEqual(Array.from({ length: 6 }, () => "all seen"));
    await press("u");
    await decided("0 of 9 decided");
    expect(review.decisions()).toEqual([]);
  });

  test("evidence leads to its lines, the rule is a key away, keys are shown, and old and new stand as one likes", async () => {
    await open(await project());
    await expect(page.locator(".difference.beside").count()).resolves.toBe(1);
    await press("v");
    await page.locator(".difference:not(.beside) .cm-deletedChunk").waitFor();
    await press("1");
    await expect(page.locator(".peek .spoken-of").innerText()).resolves.toContain("hive && hive.queen");
    await press("r");
    await page.locator("dialog", { hasText: "Each further && repeats the whole path" }).waitFor();
    await press("Escape", "?");
    await page.locator("dialog .keys").waitFor();
    await press("Escape");
    await page.locator("dialog").waitFor({ state: "detached" });
  });

  test("a page that is opened on a plan that does not fit any more says so, and decides nothing by it", async () => {
    const sandbox = await project();
    sandbox.write("src/hives.js", `// One line more.\n${HIVES}`);
    await open(sandbox);
    await page.getByText("The plan does not fit any more: src/hives.js has changed").waitFor();
    await page.getByText("so this cannot be shown").waitFor();
    await press("k");
    await page.getByText("Make the plan anew before you decide about it").waitFor();
    await press("p");
    await page.locator(".difference").waitFor();
    await press("k");
    await decided("1 of 3");
  });

  test("what is imported with a change is shown with it", async () => {
    const java = `class Hive {
  private final Object queen;

  Hive(Object queen) {
    if (queen == null) {
      throw new NullPointerException("queen");
    }
    this.queen = queen;
  }
}
`;
    const sandbox = await project({ "Hive.java": java });
    await open(sandbox);
    await page.locator(".difference", { hasText: "import java.util.Objects;" }).waitFor();
    sandbox.uvran("review", "--decide", "keep");
    await decided("1 of 1");
    sandbox.uvran("apply");
    expect(sandbox.read("Hive.java")).toMatch(/^import java\.util\.Objects;/);
  });

  test("what is alike stays within what the filter means", async () => {
    const sandbox = await project({ "old/a.js": HIVES, "new/a.js": HIVES });
    await open(sandbox, "&path=old");
    await press("s");
    await page.locator("dialog h2", { hasText: "2 changes that are alike" }).waitFor();
  });

  test("filters are in the address; search, groups and what is shown go together", async () => {
    const sandbox = await project({ "old/a.js": HIVES, "new/a.js": HIVES });
    await open(sandbox, "&rule=javascript/value-or-fallback&by=rule");
    await decided("0 of 2 decided");
    await press("k");
    await page.getByLabel("Show", { exact: true }).selectOption("open");
    await decided("0 of 1 decided");
    await page.getByLabel("Rule", { exact: true }).selectOption("");
    await page.getByLabel("Files", { exact: true }).selectOption("old");
    await press("/");
    await page.keyboard.type("path before queen nothing like it");
    await page.getByText("Nothing here.").waitFor();
    const link = new URL(page.url()).hash;
    expect(link).toContain("path=old");
    expect(link).toContain("shown=open");
  });

  test("held-back places and advice have lists of their own, and are marked", async () => {
    const sandbox = await project({
      "a.js": `// uvran-keep javascript/guarded-read: wanted\nconst jar = lot && lot.jar;\n${HIVES}`,
    });
    await open(sandbox);
    await press("t");
    await page.locator(".sheet", { hasText: "Held back." }).waitFor();
    await press("a");
    await said("Left: a.js");
    const { decision } = (await reviewOf(sandbox)).decisions()[0]!;
    expect(decision).toBe("leave");
  });

  test("a decision of another tab or command shows at once, and none is written over", async () => {
    const sandbox = await project();
    await open(sandbox);
    const first = page;
    await open(sandbox);
    await first.keyboard.press("k");
    await decided("1 of 3 decided: 1 kept");
    await first.close();
    sandbox.uvran("review", "--decide", "drop", "--rule", "javascript/value-or-fallback");
    await decided("2 of 3 decided: 1 kept, 1 dropped");
  });

  test("the server ends when its last page is closed, and says what is decided", async () => {
    await open(await project());
    await press("k");
    await decided("1 of 3");
    const { ended } = running!;
    await page.close();
    const { exit, out } = await ended;
    expect([exit, out]).toEqual([0, expect.stringContaining("The review has ended: 1 keep, 2 open.")]);
  });

  test("names and code that look like markup are text", async () => {
    const name = "<img src=x onerror=alert(1)>.js";
    await open(await project({ [name]: "const a = lot && lot.jar; // <script>alert(2)</script>\n" }));
    await expect(page.locator(".facts code").first().innerText()).resolves.toContain(name);
    await expect(page.locator("img").count()).resolves.toBe(0);
  });

  test.each<[string, string, Screen]>([
    ["light", "", {}],
    ["dark", "", { scheme: "dark" }],
    ["narrow", "", { width: 360, height: 740 }],
    ["at 200 % zoom", "", { width: 640, height: 400 }],
    ["a held-back place", "&tab=held", { scheme: "dark" }],
  ])("nothing for a general accessibility checker to complain of: %s", async (_, view, screen) => {
    const sandbox = await project({
      "a.js": `// uvran-keep javascript/guarded-read: wanted\nconst jar = lot && lot.jar;\n${HIVES}const label = lot.label || "none";\n`,
    });
    await (
      await reviewOf(sandbox)
    ).decide([{ id: (await reviewOf(sandbox)).plan.changes[1]!.id, decision: "drop", note: "no" }]);
    await open(sandbox, view, screen);
    await press("v", "1");
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(wide).toBeLessThanOrEqual(0);
    for (const opens of ["", "?"]) {
      if (opens) await press(opens);
      expect(await violations(page)).toEqual([]);
    }
  });

  test("the same page without a server: the demo opens, a file opens, decisions are saved as a file", async () => {
    page = await browser.newPage({ viewport: { width: 1280, height: 800 }, acceptDownloads: true });
    page.on("pageerror", (error) => complaints.push(error.message));
    await page.route("http://desk.test/**", (route) => {
      const path = new URL(route.request().url()).pathname;
      return route.fulfill({ path: `dist/review-desk${path === "/" ? "/index.html" : path}` });
    });
    await page.goto("http://desk.test/");
    await page.getByText("Look at the demo").click();
    await page.locator(".bar h1", { hasText: "thistledown" }).waitFor();
    const sandbox = await project();
    sandbox.uvran("review", "--out", "desk.json");
    await page.reload();
    const choose = page.locator("input[type=file]");
    await choose.setInputFiles({
      name: "x.json",
      mimeType: "application/json",
      buffer: Buffer.from('{"uvranPlan":3}'),
    });
    await page.getByText("This is a plan without the texts").waitFor();
    await choose.setInputFiles(sandbox.path("desk.json"));
    await page.locator(".sheet").waitFor();
    await press("k", "d");
    await decided("2 of 3");
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByText("Save decisions").click(),
    ]);
    sandbox.write(DECISIONS, readFileSync((await download.path())!, "utf8"));
    await propose(sandbox);
    expect(await decisionsOf(sandbox)).toEqual(["keep", "drop", undefined]);
  });
});

async function violations(page: Page): Promise<string[]> {
  await page.evaluate(AXE);
  return page.evaluate(async () => {
    const { axe } = globalThis as unknown as {
      axe: {
        run(): Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>;
      };
    };
    const { violations: found } = await axe.run();
    return found.flatMap(({ id, nodes }) =>
      nodes.map(({ html, failureSummary }) => `${id}: ${html.slice(0, 150)} ${failureSummary}`),
    );
  });
}
