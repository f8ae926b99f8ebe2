import { existsSync, readdirSync, readFileSync } from "node:fs";
import axe from "axe-core";
import { fromMarkdown } from "mdast-util-from-markdown";
import { chromium, type Browser, type Page } from "playwright-core";
import { languageOf, trialEngine, type FileResult, type LanguageId } from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";
import { GUIDES } from "../examples/handbook/src/guides.js";
import { liveIn } from "../examples/handbook/src/live.js";
import { SAMPLES } from "../examples/handbook/src/samples.js";

const RULES = new Map(SHIPPED.flatMap(({ rules }) => rules.map((rule) => [rule.id, rule] as const)));

async function ran(id: string, language: LanguageId, code: string, target?: string): Promise<FileResult> {
  const engine = trialEngine(RULES.get(id)!, target === undefined ? {} : { target });
  return (await engine.file(`code${languageOf(language).extensions[0]!}`, code))!;
}

describe("code blocks that run in the handbook come out as the guide says", () => {
  const { children } = fromMarkdown(readFileSync("docs/how-sure.md", "utf8"));
  const blocks = children.flatMap((node) => (node.type === "code" && node.meta ? [node] : []));
  test("there are some of each kind", () => {
    const kinds = new Set(blocks.map(({ meta }) => /\bis=(\w+)/.exec(meta!)?.[1]));
    expect([...kinds].sort()).toEqual(["certain", "held", "likely", "possible"]);
  });
  test.each(blocks.map(({ meta, lang, value }) => [meta!, lang as LanguageId, value] as const))(
    "%s",
    async (meta, language, code) => {
      const { rule, told } = liveIn(meta)!;
      const { changes, heldBack } = await ran(rule, language, `${code}\n`, told.target);
      const got = [...changes.map(({ trust }) => trust), ...heldBack.map(() => "held")];
      expect(got).toEqual([/\bis=(\w+)/.exec(meta)![1]]);
    },
  );
});

test.each(SAMPLES.map((one) => [one.name, one] as const))(
  "what the first page shows for %s is a certain change",
  async (_name, { rule, language, code }) => {
    const { changes } = await ran(rule, language, code);
    expect(changes.map(({ trust }) => trust)).toEqual(["certain"]);
  },
);

test("every page of the docs is in the handbook", () => {
  const pages = readdirSync("docs").flatMap((name) => /^(.+)\.md$/.exec(name)?.[1] ?? []);
  expect(GUIDES.map(({ name }) => name).sort()).toEqual(pages.sort());
});

const CHROMIUM = ["/usr/bin/chromium", "/usr/bin/chromium-browser", "/usr/bin/google-chrome"].find((path) =>
  existsSync(path),
);
if (!CHROMIUM)
  console.warn("skipped: no Chromium on this machine, so the handbook is not tried in a browser");

(CHROMIUM ? describe : describe.skip)("the handbook in a browser", () => {
  let browser: Browser;
  let page: Page;
  const base = "http://handbook.test/";
  const complaints: string[] = [];

  beforeAll(async () => {
    browser = await chromium.launch({
      executablePath: CHROMIUM!,
      args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
    });
    page = await opened();
  }, 60_000);

  afterAll(async () => {
    await browser?.close();
    expect(complaints).toEqual([]);
  });

  async function opened(width = 1280): Promise<Page> {
    const context = await browser.newContext({ viewport: { width, height: 800 } });
    const made = await context.newPage();
    made.on("pageerror", (error) => complaints.push(error.message));
    made.on("console", (message) => message.type() === "error" && complaints.push(message.text()));
    // The built pages need no server: their files are handed to the browser as they lie on disk.
    await made.route(`${base}**`, (route) => {
      const path = new URL(route.request().url()).pathname;
      return route.fulfill({ path: `examples/handbook/dist${path === "/" ? "/index.html" : path}` });
    });
    await made.goto(base);
    return made;
  }

  const outcome = () => page.locator(".try .outcome").first();

  test("the first page runs a rule in every language, and again when the code changes", async () => {
    await page.getByText("certain", { exact: true }).first().waitFor();
    expect(await outcome().innerText()).toContain('return keeper ?? "nobody";');
    for (const name of SAMPLES.map((one) => one.name)) {
      await page.getByRole("button", { name, exact: true }).click();
      await page.locator(".trust.certain").first().waitFor();
    }
    await page.getByRole("button", { name: "PHP", exact: true }).click();
    await page.locator(".try .cm-content").first().click();
    await page.keyboard.press("Control+End");
    await page.keyboard.type("$n = isset($m) ? $m : 1;\n");
    await page.getByText("$n = $m ?? 1;").waitFor();
    await page.getByRole("button", { name: "As it was" }).click();
    await page.getByText("$n = $m ?? 1;").waitFor({ state: "detached" });
  }, 60_000);

  test("a search by keyboard leads to a rule's page, whose examples can be chosen", async () => {
    await page.goto(`${base}#/`);
    await page.locator("h1").click();
    await page.keyboard.press("/");
    await page.keyboard.type("isset default");
    await page.locator(".found a").first().waitFor();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowUp");
    await page.keyboard.press("Enter");
    await page
      .getByRole("heading", { level: 1, name: "Use ?? for the default of a missing value" })
      .waitFor();
    expect(page.url()).toContain("#/rules/php/value-or-fallback");
    const choice = page.getByLabel("Example");
    const held = await choice.locator("option", { hasText: "it holds back" }).first().getAttribute("value");
    await choice.selectOption(held!);
    await page.locator(".trust.held").first().waitFor();
    await page.locator(".try .cm-content").first().click();
    await page.keyboard.press("/");
    expect(await page.getByRole("searchbox").evaluate((field) => field === document.activeElement)).toBe(
      false,
    );
  }, 30_000);

  test("a search says when nothing is found, and Escape leaves it", async () => {
    await page.getByRole("searchbox").fill("xyzzy plugh");
    await page.getByText("Nothing has all of these words.").waitFor();
    await page.keyboard.press("Escape");
    expect(await page.locator(".found").count()).toBe(0);
  });

  test("links between guides and to rules stay in the handbook, and lead to their headings", async () => {
    await page.goto(`${base}#/guides/how-sure`);
    await page.getByRole("link", { name: "What is covered", exact: true }).last().click();
    await page.getByRole("heading", { level: 1, name: "What is covered" }).waitFor();
    const rule = page.locator("main table a[href^='#/rules/']").first();
    const address = await rule.getAttribute("href");
    await rule.click();
    await page.locator(".try").waitFor();
    expect(page.url().endsWith(address!)).toBe(true);
    await page.goto(`${base}#/guides/writing-rules/resources-of-ones-own`);
    const heading = page.locator("#resources-of-ones-own");
    await heading.waitFor();
    await page.waitForFunction(() => {
      const top = document.querySelector("#resources-of-ones-own")!.getBoundingClientRect().top;
      return top >= 0 && top < 200;
    });
  }, 30_000);

  test("every link of every guide leads somewhere", async () => {
    await page.goto(`${base}#/`);
    const guides = await page
      .locator(".contents a[href^='#/guides/']")
      .evaluateAll((links) => links.map((link) => link.getAttribute("href")!));
    expect(guides.length).toBeGreaterThan(15);
    const dead: string[] = [];
    const wanted = new Map<string, string>();
    for (const guide of guides) {
      await page.goto(`${base}${guide}`);
      await page.locator("main article h1").first().waitFor();
      const links = await page
        .locator("main article a[href^='#/']")
        .evaluateAll((all) => all.map((link) => link.getAttribute("href")!));
      for (const link of links) wanted.set(link, guide);
      const broken = await page
        .locator("main img")
        .evaluateAll((all) =>
          all.flatMap((one) => (one.getAttribute("src") ? [] : [one.getAttribute("alt") ?? ""])),
        );
      dead.push(...broken.map((alt) => `${guide}: no picture "${alt}"`));
    }
    const parts = [...wanted].filter(([link]) => link.split("/").length > 3 && link.startsWith("#/guides/"));
    for (const [link, from] of parts) {
      await page.goto(`${base}${link}`);
      await page.locator("main article h1").first().waitFor();
      const slug = decodeURIComponent(link.split("/")[3]!);
      const isThere = await page.evaluate((id) => document.getElementById(id) !== null, slug);
      if (!isThere) dead.push(`${from}: ${link}`);
    }
    for (const [link, from] of wanted) {
      const id = /^#\/rules\/(.+)$/.exec(link)?.[1];
      if (id !== undefined && !RULES.has(id)) dead.push(`${from}: ${link}`);
    }
    expect(dead).toEqual([]);
  }, 120_000);

  test("an address of nothing says so", async () => {
    await page.goto(`${base}#/rules/php/no-such-rule`);
    await page.getByText("There is no rule php/no-such-rule.").waitFor();
    await page.goto(`${base}#/rules/%E0%A4`);
    await page.getByText("There is no rule %E0%A4.").waitFor();
    await page.goto(`${base}#/nowhere`);
    await page.getByText("Nothing stands at").waitFor();
  });

  test.each(["#/", "#/rules", "#/rules/java/optional-consumed", "#/guides/how-sure", "#/guides/codes"])(
    "%s can be used by everybody, in light and dark",
    async (hash) => {
      for (const colorScheme of ["light", "dark"] as const) {
        await page.emulateMedia({ colorScheme });
        await page.goto(`${base}${hash}`);
        await page.locator("main article h1").first().waitFor();
        await page.evaluate(axe.source);
        const { violations } = await page.evaluate(() =>
          (globalThis as unknown as { axe: { run(): Promise<{ violations: { id: string }[] }> } }).axe.run(),
        );
        expect(violations.map((one) => JSON.stringify(one).slice(0, 900))).toEqual([]);
      }
      await page.emulateMedia({ colorScheme: "light" });
    },
    30_000,
  );

  test("on a narrow screen nothing is cut off, and the contents fold away", async () => {
    const narrow = await opened(400);
    await narrow.goto(`${base}#/guides/how-sure`);
    await narrow.locator(".try").first().waitFor();
    const isCut = await narrow.evaluate(() => document.documentElement.scrollWidth > innerWidth + 1);
    expect(isCut).toBe(false);
    expect(await narrow.getByRole("link", { name: "Take stock" }).isVisible()).toBe(false);
    await narrow.getByText("Contents", { exact: true }).click();
    await narrow.getByRole("link", { name: "Take stock" }).click();
    await narrow.getByRole("heading", { level: 1, name: /^Surveys/ }).waitFor();
    expect(await narrow.getByRole("link", { name: "Review a plan" }).isVisible()).toBe(false);
    await narrow.context().close();
  }, 30_000);
});
