/**
 * Shows each component of a file, lets the same things happen to it in the same order, and prints what the document is
 * after each of them. `node drive.mjs FILE`
 */
import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { pathToFileURL } from "node:url";
import { JSDOM } from "jsdom";
import ts from "typescript";

const [, , file] = process.argv;
const { window } = new JSDOM("<!doctype html><body></body>", { pretendToBeVisual: true });
Object.assign(globalThis, { window, document: window.document });
Object.defineProperty(globalThis, "navigator", { value: window.navigator, configurable: true });
const timers = new Set();
globalThis.setInterval = (work) => {
  timers.add(work);
  return work;
};
globalThis.clearInterval = (work) => timers.delete(work);

const { createElement } = await import("react");
const { flushSync } = await import("react-dom");
const { createRoot } = await import("react-dom/client");
const options = { jsx: ts.JsxEmit.ReactJSX, module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2022 };
const code = ts.transpileModule(readFileSync(file, "utf8"), { compilerOptions: options }).outputText;
const made = join(dirname(file), `.${basename(file)}-${process.pid}.mjs`);
writeFileSync(made, code);
const components = await import(pathToFileURL(made).href).finally(() => rmSync(made));

// What components put off waits for a tick, so that nothing depends on how fast the machine is.
globalThis.setTimeout = (work) => {
  const once = () => {
    timers.delete(once);
    work();
  };
  timers.add(once);
  return once;
};

/** React works in immediate tasks, of which each may ask for another. */
const settled = async () => {
  for (let i = 0; i < 30; i++) await new Promise(setImmediate);
};

/** What a reader sees: no ids, which nobody sees, and no attribute without a value that says nothing. */
function shown(node) {
  if (node.nodeType === 3) return node.data;
  const attributes = [...node.attributes]
    .filter(({ name, value }) => name !== "id" && name !== "for" && !(value === "" && /^(class|style|title)$/.test(name)))
    .map(({ name, value }) => ` ${name}="${value}"`)
    .sort();
  const inside = [...node.childNodes].map(shown).join("");
  const value = "value" in node && node.tagName !== "BUTTON" ? ` value=${node.value}` : "";
  return `<${node.tagName}${attributes.join("")}${value}>${inside}</>`;
}

/** The same numbers in the same order each time. */
let seed = 7;
const upTo = (n) => (seed = (seed * 48271) % 2147483647) % n;

for (const [name, component] of Object.entries(components)) {
  const host = document.body.appendChild(document.createElement("main"));
  const root = createRoot(host);
  flushSync(() => root.render(createElement(component)));
  await settled();
  console.log(name, shown(host));
  const elements = [...host.querySelectorAll("*")];
  for (let i = 0; i < 25; i++) {
    const element = elements[upTo(elements.length)];
    const what = ["click", "dblclick", "input", "change", "tick"][upTo(5)];
    if (what === "tick") for (const work of [...timers]) work();
    else {
      // Only what a person can work with tells of a change, or of a click.
      if (element.disabled) continue;
      if (what === "change" && element.tagName !== "SELECT") continue;
      if (what === "input" && element.tagName !== "INPUT") continue;
      if (what === "input") {
        const set = Object.getOwnPropertyDescriptor(window.HTMLInputElement.prototype, "value").set;
        set.call(element, "x".repeat(upTo(7)));
      }
      if (element.tagName === "SELECT") element.selectedIndex = upTo(2);
      element.dispatchEvent(new window.Event(what, { bubbles: true, cancelable: true }));
    }
    await settled();
    console.log(what, element.tagName, shown(host));
  }
  root.unmount();
  await settled();
  console.log(document.activeElement?.tagName, timers.size);
  timers.clear();
  host.remove();
}
process.exit(0);
