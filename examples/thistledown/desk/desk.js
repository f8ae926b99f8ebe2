"use strict";
// Shows the desk and the scale, does what a keeper does, and prints what the page says.
const { readFileSync } = require("node:fs");
const { join } = require("node:path");
const { JSDOM } = require("jsdom");
const ts = require("typescript");

const { window } = new JSDOM("<body></body>");
Object.assign(globalThis, { window, document: window.document });
Object.defineProperty(globalThis, "navigator", { value: window.navigator, configurable: true });
const minutes = [];
globalThis.setInterval = (work) => minutes.push(work);
globalThis.clearInterval = () => {};

const React = require("react");
const { flushSync } = require("react-dom");
const { createRoot } = require("react-dom/client");

/** A module of this folder, compiled. */
function load(name) {
  const code = readFileSync(join(__dirname, name), "utf8");
  const options = { module: ts.ModuleKind.CommonJS, jsx: ts.JsxEmit.React, target: ts.ScriptTarget.ES2022 };
  const module = { exports: {} };
  const find = (wanted) => (wanted.startsWith("./") ? load(`${wanted.slice(2)}.js`) : require(wanted));
  const run = new Function("require", "module", "exports", ts.transpileModule(code, { compilerOptions: options }).outputText);
  run(find, module, module.exports);
  return module.exports;
}

// React works in immediate tasks, of which each may ask for another.
const rest = async () => {
  for (let i = 0; i < 30; i++) await new Promise(setImmediate);
};

function text(node) {
  if (node.style?.display === "none") return "";
  if (node.nodeType === 3) return node.data;
  const inside = [...node.childNodes].map(text).filter((one) => one !== "");
  const marks = [node.disabled ? "off" : "", node.className === "state heavy" ? "heavy" : ""].filter((one) => one !== "");
  return inside.join(node.tagName === "MAIN" || node.children.length > 0 ? " | " : "") + (marks.length > 0 ? ` (${marks})` : "");
}

async function shown(element, clicks) {
  const host = document.body.appendChild(document.createElement("main"));
  const root = createRoot(host);
  flushSync(() => root.render(element));
  await rest();
  console.log(text(host));
  for (const said of clicks) {
    if (said === "a minute") minutes.forEach((work) => work());
    else [...host.querySelectorAll("button, input")].find((one) => (one.tagName === "INPUT" ? "gift" : one.textContent.trim()) === said).click();
    await rest();
    console.log(`${said}: ${text(host)}`);
  }
  root.unmount();
  host.remove();
}

async function main() {
  const { OrderDesk } = load("OrderDesk.jsx");
  const { ScaleWatch } = load("ScaleWatch.jsx");
  const clicks = ["one more", "one less", "gift", "one less", "one less", "gift", "one more"];
  await shown(React.createElement(OrderDesk, { kind: "heather" }), clicks);
  let grams = 29000;
  const weigh = async () => (grams += 800);
  await shown(React.createElement(ScaleWatch, { weigh }), ["Weigh now", "a minute", "a minute", "Weigh now"]);
  process.exit(0);
}

void main();
