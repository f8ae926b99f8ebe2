import { existsSync } from "node:fs";
import { chromium, type Browser, type Page } from "playwright-core";

const CHROMIUM = ["/usr/bin/chromium", "/usr/bin/chromium-browser", "/usr/bin/google-chrome"].find((path) =>
  existsSync(path),
);
if (!CHROMIUM) console.warn("skipped: no Chromium on this machine, so the workbench page is not tried");

(CHROMIUM ? describe : describe.skip)("the workbench in a browser", () => {
  let browser: Browser;
  let page: Page;
  const complaints: string[] = [];

  beforeAll(async () => {
    browser = await chromium.launch({
      executablePath: CHROMIUM!,
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    });
    page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    page.on("pageerror", (error) => complaints.push(error.message));
    page.on("console", (message) => message.type() === "error" && complaints.push(message.text()));
    // The built page needs no server: its files are handed to the browser as they lie on disk.
    await page.route("http://workbench.test/**", (route) => {
      const path = new URL(route.request().url()).pathname;
      return route.fulfill({ path: `examples/workbench/dist${path === "/" ? "/index.html" : path}` });
    });
    await page.goto("http://workbench.test/");
    await page.getByText(/^\d+ changes/).waitFor();
  });

  afterAll(async () => {
    await browser?.close();
    expect(complaints).toEqual([]);
  });

  const count = (): Promise<string> => page.locator(".count").innerText();

  test("shows what all rules would change, with trust, evidence and cautions", async () => {
    expect(await count()).toBe("5 changes, 1 held back");
    const card = page.locator("article", { hasText: "no label" }).first();
    await expect(card.innerText()).resolves.toContain("possible");
    await expect(card.locator(".caution").innerText()).resolves.toContain("the old code fell back");
    await expect(card.locator(".new").innerText()).resolves.toContain('labelOf(order) ?? "no label" };');
  });

  test("one rule can be chosen, and says why it is there", async () => {
    await page.locator("#rule").selectOption("javascript/guarded-read");
    await page.getByText("2 changes, 0 held back").waitFor();
    await page.getByText("Each further && repeats the whole path").waitFor();
    await page.locator("#rule").selectOption("");
    await page.getByText("5 changes").waitFor();
  });

  test("another language is loaded on demand, and what was held back is shown with its reason", async () => {
    await page.locator("#sample").selectOption("Inspections (Python)");
    await page.getByText("with open(path").first().waitFor();
    await page.locator(".held", { hasText: "scores is changed here (line 7)" }).waitFor();
  });

  const replaceCode = async (code: string): Promise<void> => {
    await page.locator(".cm-content").click();
    await page.keyboard.press("Control+A");
    await page.keyboard.insertText(code);
  };

  test("typing changes the result, and a syntax error is told", async () => {
    await replaceCode("if queen:\n    name = queen\nelse:\n    name = (\n");
    await page.getByText(/syntax error in line \d/).waitFor();
    await replaceCode('if queen:\n    name = queen\nelse:\n    name = "none"\n');
    await page.getByText("1 change, 0 held back").waitFor();
  });

  test("the syntax under the pointer is a trail from the file down, and marks its code", async () => {
    const box = (await page.locator(".cm-line", { hasText: "name = queen" }).boundingBox())!;
    await page.mouse.move(box.x + 45, box.y + box.height / 2);
    const trail = page.getByRole("navigation", { name: "Syntax under the pointer" });
    await trail.getByText("if_statement").waitFor();
    expect((await trail.innerText()).replace(/\s+/g, " ")).toContain("assignment left: identifier");
    await trail.getByText("assignment", { exact: true }).hover();
    await expect(page.locator(".marked").allInnerTexts()).resolves.toEqual(["name = queen"]);
  });
});
