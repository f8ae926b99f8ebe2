import { existsSync, mkdirSync, readFileSync, symlinkSync } from "node:fs";
import { resolve } from "node:path";
import axe from "axe-core";
import { chromium, type Browser, type Page } from "playwright-core";
import { Sandbox } from "./cli/run.js";

const CHROMIUM = ["/usr/bin/chromium", "/usr/bin/chromium-browser", "/usr/bin/google-chrome"].find((path) =>
  existsSync(path),
);
if (!CHROMIUM) console.warn("skipped: no Chromium on this machine, so the workbench page is not tried");

const STARTERS = [
  "Python",
  "TypeScript",
  "JavaScript",
  "Java",
  "C++",
  "C#",
  "PHP",
  "Ruby",
  "PowerShell",
] as const;

/** What is asked for again until it is as expected, or for some seconds. */
function poll(
  ask: () => unknown,
): Record<
  "toBe" | "toContain" | "toContainEqual" | "toMatch" | "toBeGreaterThan",
  (wanted: unknown) => Promise<void>
> {
  const matcher = (name: string) => async (wanted: unknown) => {
    const end = Date.now() + 8000;
    for (;;) {
      const got = await ask();
      try {
        (expect(got) as unknown as Record<string, (wanted: unknown) => void>)[name]!(wanted);
        return;
      } catch (error) {
        if (Date.now() > end) throw error;
        await new Promise((resolve) => setTimeout(resolve, 60));
      }
    }
  };
  return {
    toBe: matcher("toBe"),
    toContain: matcher("toContain"),
    toContainEqual: matcher("toContainEqual"),
    toMatch: matcher("toMatch"),
    toBeGreaterThan: matcher("toBeGreaterThan"),
  };
}

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
    page = await opened("");
  }, 60_000);

  afterAll(async () => {
    await browser?.close();
    expect(complaints).toEqual([]);
  });

  async function opened(hash: string): Promise<Page> {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const made = await context.newPage();
    made.on("pageerror", (error) => complaints.push(error.message));
    made.on("console", (message) => message.type() === "error" && complaints.push(message.text()));
    // The built page needs no server: its files are handed to the browser as they lie on disk.
    await made.route("http://workbench.test/**", (route) => {
      const path = new URL(route.request().url()).pathname;
      return route.fulfill({ path: `examples/workbench/dist${path === "/" ? "/index.html" : path}` });
    });
    await made.goto(`http://workbench.test/${hash}`);
    await made
      .locator(hash === "" ? ".trials caption" : ".cm-content")
      .first()
      .waitFor();
    return made;
  }

  const code = (path: string) => page.locator(`.cm-content[aria-label="Code of ${path}"]`);
  const rule = () => page.getByLabel("The rule file");
  const tally = (path: string) => page.getByRole("region", { name: `Code of ${path}` }).locator(".tally");
  const begin = async (language: string): Promise<void> => {
    const label = await page
      .getByLabel("Begin with an example")
      .locator("option", { hasText: `${language}:` })
      .innerText();
    await page.getByLabel("Begin with an example").selectOption({ label });
    await page.locator('main[aria-busy="false"] .trials caption .yes').waitFor();
  };
  const type = async (into: ReturnType<typeof code>, text: string): Promise<void> => {
    await into.focus();
    await page.keyboard.press("Control+A");
    await page.keyboard.insertText(text);
  };
  /** The rule file without line ends that the editor draws. */
  const source = (): Promise<string> =>
    rule()
      .locator(".cm-line")
      .allInnerTexts()
      .then((lines) => lines.map((line) => line.replace(/\n$/, "")).join("\n"));
  /** Puts the caret of the rule file behind a piece of text. */
  const caretBehind = async (line: string, text: string): Promise<void> => {
    const at = rule().locator(".cm-line", { hasText: line }).first();
    await at.click();
    await page.keyboard.press("Home");
    await page.keyboard.press("Home");
    const before = (await at.innerText()).indexOf(text) + text.length;
    for (let i = 0; i < before; i++) await page.keyboard.press("ArrowRight");
  };

  test.each(STARTERS)(
    "begins with an example in %s, whose trials pass and which finds something",
    async (name) => {
      await begin(name);
      await poll(() =>
        page
          .locator(".tally")
          .allInnerTexts()
          .then((all) => all.join()),
      ).toMatch(/change|reported/);
      await poll(() => page.locator(".cm-lintRange-error").count()).toBe(0);
    },
  );

  test("shows what comes of each place below its code, with the answers", async () => {
    await begin("Python");
    await poll(() => tally("inspections.py").innerText()).toBe("1 change, 1 held back");
    const likely = page.locator(".outcome.likely").first();
    expect(await likely.locator(".new").allInnerTexts()).toEqual([
      expect.stringContaining("for i, row in enumerate(rows):  # numbered for the minutes"),
      expect.stringContaining("found.append((i, row))"),
    ]);
    const held = page.locator(".outcome.held");
    expect(await held.locator("li.no").innerText()).toContain("scores is changed here (line 11)");
    expect(await held.locator("li.yes").innerText()).toContain("index is not written in body");
  });

  test("typing changes what comes of the code, and a syntax error is told", async () => {
    await type(code("labels.py"), "for k in range(len(lots)):\n    weigh(lots[k])\n");
    await poll(() => code("labels.py").locator(".new").allInnerTexts()).toContainEqual(
      expect.stringContaining("for k, lot in enumerate(lots):"),
    );
    await type(code("labels.py"), "for k in range(len(lots):\n    weigh(lots[k])\n");
    await page.getByText("There is a syntax error in line 1.").waitFor();
  });

  test("the caret shows its nodes, where a name comes from, what the code reads as, what the rule says", async () => {
    await begin("TypeScript");
    const line = code("orders.ts").locator(".cm-line", { hasText: "found !== null" });
    await line.click({ position: { x: 110, y: 8 } });
    const here = page.getByRole("region", { name: "At the caret" });
    await here.getByText("ternary_expression").waitFor();
    const said = (await here.innerText()).replace(/\s+/g, " ");
    expect(said).toContain("found is a local, declared in line 4");
    expect(said).toContain("reads as a choice: found where found !== null && found !== undefined, else 0");
    expect(said).toMatch(/the rule, for .*it is rewritten, certain/);
    // Pointing at a node marks its code; choosing it selects the code.
    await here.getByRole("button", { name: "return_statement" }).hover();
    expect((await page.locator(".pointed").allInnerTexts()).join("")).toContain("return found !== null");
    await here.getByRole("button", { name: "return_statement" }).click();
    await here.getByText("Start a rule from the selection").waitFor();
  });

  test("a rule is made by keyboard: code, a hole, what it becomes, a condition, a trial", async () => {
    await begin("JavaScript");
    await type(code("shelf.js"), "const a = lots.indexOf(lot) >= 0;\nconst b = draw().indexOf(3) >= 0;\n");
    await page.keyboard.press("Control+Home");
    for (let i = 0; i < 10; i++) await page.keyboard.press("ArrowRight");
    await page.keyboard.down("Shift");
    for (let i = 0; i < 22; i++) await page.keyboard.press("ArrowRight");
    await page.keyboard.up("Shift");
    await page.getByText("Start a rule from the selection").waitFor();
    await page.keyboard.press("Control+Alt+KeyR");
    await poll(source).toContain("was: javascript`lots.indexOf(lot) >= 0`,");
    await poll(() => tally("shelf.js").innerText()).toBe("1 fit and stay");
    for (const part of ["`lots", "indexOf(lot"]) {
      await caretBehind("was:", part);
      await page.getByText("Make this a hole").waitFor();
      await page.waitForTimeout(200);
      await page.keyboard.press("Control+Alt+KeyH");
      await poll(source).toContain(part === "`lots" ? "${lots}" : "${lot}");
    }
    expect(await source()).toContain(
      'const { lots, lot } = holes({ lots: "expression", lot: "expression" });',
    );
    await poll(() => tally("shelf.js").innerText()).toBe("2 fit and stay");
    await caretBehind("becomes:", "javascript`");
    await page.keyboard.press("Shift+End");
    await page.keyboard.insertText("${lots}.includes(${lot})`,");
    await poll(() => tally("shelf.js").innerText()).toBe("2 changes");
    await page.getByRole("button", { name: "Conditions" }).first().click();
    const offer = page.getByRole("row").filter({ hasText: "sideEffectFree(lots)" });
    await offer.waitFor();
    expect((await offer.innerText()).replace(/\s+/g, " ")).toContain(
      "1 place: evaluating lots does nothing else",
    );
    await offer.getByRole("checkbox").click();
    await poll(source).toContain("given: [sideEffectFree(lots)],");
    await poll(() => tally("shelf.js").innerText()).toBe("1 change, 1 held back");
    expect(await source()).toContain("import { holes, javascript, rule, sideEffectFree }");
    // A trial is what comes of the code now.
    await code("shelf.js").focus();
    await page.keyboard.press("Control+Alt+KeyT");
    await poll(source).toContain('const { rewrites } = trialsIn("javascript");');
    await page.locator(".trials caption .yes").waitFor();
    expect(await page.locator(".trials tbody tr").count()).toBe(1);
    // A trial that fails says why.
    await offer.getByRole("checkbox").click();
    await poll(() => page.locator(".trials pre").innerText()).toContain(
      "got      + const b = draw().includes(3);",
    );
    await rule().focus();
    await page.keyboard.press("Control+Z");
    await page.locator(".trials caption .yes").waitFor();
  });

  test("a hole is renamed, narrowed, written out and made wider", async () => {
    await begin("JavaScript");
    await page.getByLabel("Name of the hole list").fill("jars");
    await page.keyboard.press("Enter");
    await poll(source).toContain("was: javascript`${jars}[${jars}.length - 1]`,");
    expect(await source()).toContain('given: [sideEffectFree(jars), isOfType(jars, "Array")],');
    await page.getByLabel("Narrow jars").selectOption("like");
    await page.getByLabel("jars fits").fill("shelf.jars");
    await page.keyboard.press("Enter");
    await poll(source).toContain('holes({ jars: { kind: "expression", like: javascript`shelf.jars` } });');
    await poll(() => tally("shelf.js").innerText()).toBe("1 change");
    await page.getByRole("button", { name: "jars need no longer have like" }).click();
    await poll(source).toContain('holes({ jars: "expression" });');
    await poll(() => tally("shelf.js").innerText()).toBe("2 changes, 1 held back");
    await page.getByRole("button", { name: "Write out" }).click();
    await poll(source).toContain("was: javascript`jars[jars.length - 1]`,");
    await caretBehind("was:", "[jars.");
    await page.getByText("Make this a hole").waitFor();
    await page.getByRole("button", { name: "Wider" }).waitFor({ state: "detached" });
  });

  test("Wider takes in the code around a hole", async () => {
    await type(
      rule(),
      `import { holes, javascript, rule } from "uvran";
const { hive } = holes({ hive: "expression" });
export const own = rule({
  id: "javascript/own", kind: "idiom", title: "t", why: "w",
  was: javascript\`weigh(\${hive}.queen)\`,
  becomes: javascript\`count()\`,
  trials: [],
});`,
    );
    await type(code("shelf.js"), "weigh(a.queen); weigh(b());\n");
    await poll(() => tally("shelf.js").innerText()).toBe("1 change");
    await page.getByRole("button", { name: "Wider" }).click();
    await poll(source).toContain("was: javascript`weigh(${hive})`,");
    await poll(() => tally("shelf.js").innerText()).toBe("2 changes");
  });

  test("what is wrong with a rule is said where it is made", async () => {
    await begin("JavaScript");
    await caretBehind("becomes:", "${list}");
    await page.keyboard.insertText(" ${nothing}");
    await page.getByRole("alert").filter({ hasText: "nothing is not defined" }).waitFor();
    await poll(() => page.locator(".cm-lintRange-error").count()).toBeGreaterThan(0);
    await type(rule(), 'import { rule } from "uvran";\nexport const a = rule({ id: "x" });');
    await page.getByRole("alert").filter({ hasText: "the id must look like" }).waitFor();
    await type(rule(), 'import { readFileSync } from "node:fs";\nreadFileSync("x");');
    await page.getByRole("alert").filter({ hasText: '"node:fs" is not at hand in the workbench' }).waitFor();
    await type(rule(), "export const a = ;");
    await page.getByRole("alert").filter({ hasText: "Line 1: Expression expected." }).waitFor();
  });

  test("a rule without end is stopped, and the next one runs", async () => {
    await type(rule(), "for (;;) {}\nexport {};");
    await page.getByRole("alert").filter({ hasText: "did not come to an end in 10 seconds" }).waitFor();
    await begin("Ruby");
    await poll(() => tally("prices.rb").innerText()).toBe("1 change, 1 held back");
  }, 40_000);

  test("a rule is drafted from an edit that is typed in", async () => {
    await begin("JavaScript");
    await page.keyboard.press("Control+Alt+KeyE");
    const sides = (label: string) => page.locator(`.cm-content[aria-label="${label}"]`);
    const old =
      "const a = lots.indexOf(lot) >= 0;\nconst b = jars.indexOf('x') >= 0;\nconst c = rows.indexOf(y) >= 1;\n";
    await type(sides("As it was"), old);
    await type(sides("As it becomes"), old.replace(/(\w+)\.indexOf\((.*)\) >= 0/g, "$1.includes($2)"));
    const way = page.locator(".way-card.usual");
    await poll(() => way.innerText()).toContain("→ lots.includes(lot)");
    await way.getByRole("button", { name: "Take this rule" }).click();
    await poll(source).toContain("was: javascript`${lots}.indexOf(${lot}) >= 0`,");
    await page.locator(".trials caption .yes").waitFor();
    await poll(() => tally("shelf.js").innerText()).toBe("2 changes");
  });

  test("a reading becomes the old code of a rule", async () => {
    await begin("Ruby");
    await code("prices.rb")
      .locator(".cm-line", { hasText: "names.key?" })
      .click({ position: { x: 60, y: 8 } });
    await page.getByRole("button", { name: "Start from choice(hasKey(item(map, key))" }).click();
    await poll(source).toContain("was: choice(hasKey(item(map, key)), item(map, key), fallback),");
    await poll(() => tally("prices.rb").innerText()).toBe("2 reported");
  });

  test("a link holds the rule and the code", async () => {
    await begin("C++");
    await poll(() => new URL(page.url()).hash.length).toBeGreaterThan(100);
    await page.waitForTimeout(600);
    const other = await opened(new URL(page.url()).hash);
    // A rule is a program: that of someone else is read before it runs.
    const asks = other.getByRole("alert").filter({ hasText: "This rule came with a link" });
    await asks.waitFor();
    expect(await other.locator(".outcome").count()).toBe(0);
    await asks.getByRole("button", { name: "Run the rule" }).click();
    await other.locator(".outcome .new", { hasText: "std::unique_ptr<Hive> hive(open" }).waitFor();
    // The page's own rule is known again after a reload.
    await other.waitForTimeout(700);
    await other.reload();
    await other.locator(".outcome .new", { hasText: "std::unique_ptr<Hive> hive(open" }).waitFor();
    // An address that is cut says so, and takes nothing away.
    await other.evaluate(() => (location.hash = "#notALink"));
    await other.getByText("The address holds no rule that can be read").waitFor();
    await other.context().close();
  });

  test("files and folders are opened, and what is left out is told", async () => {
    const sandbox = new Sandbox();
    sandbox.write("own/a.py", "for i in range(len(xs)):\n    f(xs[i])\n");
    sandbox.write("own/notes.txt", "nothing");
    sandbox.write("own/node_modules/b.py", "x = 1\n");
    await begin("Python");
    await page.getByLabel("Folder").setInputFiles(sandbox.path("own"));
    await page.getByText("Left out: 2 of other kinds or of others.").waitFor();
    await poll(() => tally("own/a.py").innerText()).toBe("1 change");
  });

  test("the rule file that is saved runs unchanged in a project, and is opened again", async () => {
    await begin("PHP");
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: "Save the rule file" }).click(),
    ]);
    expect(download.suggestedFilename()).toBe("one-more.ts");
    const text = readFileSync(await download.path(), "utf8");
    const sandbox = new Sandbox();
    mkdirSync(sandbox.path("node_modules"));
    symlinkSync(resolve("."), sandbox.path("node_modules/uvran"));
    sandbox.write("rules/one-more.ts", text);
    sandbox.write(
      "uvran.config.ts",
      `import { pack } from "uvran";
import { oneMore } from "./rules/one-more.js";
export default { packs: [pack("own", [oneMore])] };
`,
    );
    expect(sandbox.uvran("rules", "--try")).toMatchObject({ exit: 0 });
    await begin("Ruby");
    await page.getByLabel("Rule file", { exact: true }).setInputFiles(sandbox.path("rules/one-more.ts"));
    await poll(source).toContain('id: "php/one-more"');
  });

  test("F6 goes through the parts of the page, and F1 shows the keys", async () => {
    await begin("Python");
    const seen = new Set<string>();
    for (let i = 0; i < 5; i++) {
      await page.keyboard.press("F6");
      seen.add(
        await page.evaluate(
          () =>
            document.activeElement?.closest("[data-pane]")?.getAttribute("aria-labelledby") ??
            document.activeElement?.closest("[data-pane]")?.className ??
            "",
        ),
      );
    }
    expect(seen.size).toBeGreaterThanOrEqual(4);
    await page.keyboard.press("F1");
    await page.getByRole("dialog", { name: "Keys" }).waitFor();
    await page.keyboard.press("Escape");
    await page.getByRole("dialog").waitFor({ state: "detached" });
  });

  test.each(["light", "dark"] as const)("can be read by everyone, in %s colours", async (colorScheme) => {
    await begin("Python");
    await page.emulateMedia({ colorScheme });
    await code("inspections.py").locator(".cm-line", { hasText: "found.append" }).click();
    await page.getByText("Start a rule from this").waitFor();
    await page.getByRole("button", { name: "Conditions" }).first().click();
    await page.getByRole("row").filter({ hasText: "onlyUse(index)" }).waitFor();
    await page.addScriptTag({ content: axe.source });
    const found = await page.evaluate(async () => {
      const { violations } = await (globalThis as unknown as { axe: typeof axe }).axe.run(document);
      return violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(" ")}`);
    });
    await page.getByRole("button", { name: "Conditions" }).first().click();
    await page.emulateMedia({ colorScheme: null });
    expect(found).toEqual([]);
  });

  test("fits a narrow window", async () => {
    await page.setViewportSize({ width: 390, height: 800 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
    await page.setViewportSize({ width: 1280, height: 800 });
  });
});
