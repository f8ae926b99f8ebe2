import {
  applyEdits,
  condition,
  copy,
  escaped,
  holes,
  no,
  ofKind,
  rule,
  shortened,
  surroundingsOf,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode, SyntaxTree } from "../../../core.js";
import { sortOver } from "./cells.js";
import type { Element } from "./markup.js";
import { NoState } from "./no-state.js";
import { planOf, type Plan } from "./plan.js";
import { effectStatements, markupOf } from "./react.js";
import { ComponentWriter } from "./written.js";

const { component } = holes({
  component: {
    kind: "statement",
    node: ["function_declaration", "function_expression", "arrow_function"],
  },
});

/** Everything from the first effect to the markup. */
function together(node: SyntaxNode): SyntaxNode[] | undefined {
  const [first] = effectStatements(node);
  const last = markupOf(node);
  if (!first) return undefined;
  if (!last) return node.child("body")!.parts.some(hasMarkup) ? [first] : undefined;
  return node.child("body")!.parts.filter(({ start, end }) => first.start <= start && end <= last.end);
}

const hasMarkup = (node: SyntaxNode): boolean =>
  [...node.descendants()].some((one) => one.is(["jsx_element", "jsx_self_closing_element"]));

function attempt<T>(work: () => T): T | NoState {
  try {
    return work();
  } catch (error) {
    if (error instanceof NoState) return error;
    throw error;
  }
}

const planIn = (match: Match): Plan | NoState => attempt(() => planOf(match.the(component)));

/** Does anything else name the id: the markup, a style, another file? */
function isNamedElsewhere({ id, tag }: Element, { parts }: Plan): boolean {
  const { tree } = tag;
  const known = parts.flatMap(({ lookedUp }) =>
    lookedUp.filter(({ element }) => element.id === id).map(({ call }) => call),
  );
  const texts = [...tree.root.descendants()].filter((node) =>
    node.is(["string_fragment", "template_string"]),
  );
  const here = texts.some(
    (node) =>
      namesId(node, id) &&
      !known.some((call) => call.holds(node)) &&
      !(tag.holds(node) && attributeAround(node) === "id"),
  );
  return (
    here ||
    textsNaming(id, tree).some((text) =>
      new RegExp(`#${escaped(id)}(?![\\w-])|(["'\`])${escaped(id)}\\1`).test(text),
    )
  );
}

/** The other files of the project in which an id could stand; an id with other signs than letters and hyphens has none. */
function textsNaming(id: string, tree: SyntaxTree): string[] {
  const { files, path } = surroundingsOf(tree);
  // Files are found by a word that has no hyphen in it.
  const [part = id] = id.match(/[\p{L}\p{N}_]+/u) ?? [];
  const found = [...(files?.naming(part) ?? []), ...(files?.styling?.(part) ?? [])];
  return found.filter((file) => file.path !== path).map(({ text }) => text);
}

/** Where other code looks an element of this component up, which has no element of its own with that id. */
function lookedUpElsewhere({ component: own, parts }: Plan): { at: SyntaxNode; id: string } | undefined {
  const { tree } = own;
  const cuts = parts.map(({ effect }) => ({
    start: effect.statement.start,
    end: effect.statement.end,
    text: "",
  }));
  const inside = cuts.map(({ start, end, text }) => ({
    start: start - own.start,
    end: end - own.start,
    text,
  }));
  const rest = applyEdits(own.text, inside);
  const elements = parts.flatMap(({ lookedUp }) => lookedUp.map(({ element }) => element));
  for (const { id, tag } of elements) {
    const form = new RegExp(
      `(getElementById\\(|querySelector(All)?\\([^)]*#)["'\`]?${escaped(id)}["'\`\\s.>:[)]`,
    );
    const marks = new RegExp(`\\bid=\\{?["']${escaped(id)}["']`);
    const outside = tree.text.slice(0, own.start) + tree.text.slice(own.end);
    const isOther = (text: string): boolean => form.test(text) && !marks.test(text);
    if (form.test(rest) || isOther(outside) || textsNaming(id, tree).some(isOther)) return { at: tag, id };
  }
  return undefined;
}

const attributeAround = (node: SyntaxNode): string | undefined =>
  node.closest(["jsx_attribute"])?.firstPart?.text;

/** Does a text name an id: as a whole, behind `#`, or as one of several that an attribute lists? */
function namesId(node: SyntaxNode, id: string): boolean {
  const words = node.text.split(/[^\w#-]+/);
  if (words.includes(`#${id}`)) return true;
  const attribute = attributeAround(node);
  if (attribute === undefined) return node.text === id;
  return /^(htmlFor|form|list|headers|name|href|aria-.*)$/.test(attribute) && words.includes(id);
}

const written = new WeakMap<Match, Segment[] | NoState>();

/** The new code, worked out once: names are given once. */
function codeFor(match: Match, plan: Plan): Segment[] | NoState {
  const known = written.get(match);
  if (known) return known;
  const code = attempt(() => {
    const edits = new ComponentWriter(plan, match, (element) => isNamedElsewhere(element, plan)).edits();
    return [copy(match.nodes[0]!.start, match.nodes.at(-1)!.end, edits)];
  });
  written.set(match, code);
  return code;
}

/** Is what is shown as text one? React shows nothing for true and false, and takes a number in a style for pixels. */
function isText({ states, derived }: Plan): Answer {
  const cells = [...states, ...derived];
  let unsure: SyntaxNode | undefined;
  for (const { shown, writes } of cells) {
    if (!shown || shown.aspect.isSwitch) continue;
    const { is, name } = shown.aspect;
    for (const { value } of writes) {
      if (typeof value !== "object") continue;
      const sort = sortOver(value, cells);
      const isWritten = /^(aria|data)-/.test(name);
      if ((sort === "switch" && !isWritten) || (sort === "number" && is === "style"))
        return no("value.result", `\`${shortened(value.text)}\` is shown in another way by React`, value);
      if (sort === undefined) unsure ??= value;
    }
  }
  return unsure
    ? unknown("value.result", `\`${shortened(unsure.text)}\` is taken to be text or a number`, unsure)
    : yes("value.result", "what is shown is text");
}

const about = (must: string, ask: (plan: Plan, match: Match) => Answer) =>
  condition(must, (match) => {
    const plan = planIn(match);
    return plan instanceof NoState ? no("form.fits", plan.why, plan.at) : ask(plan, match);
  });

const js = trialsIn("javascript");
const tsx = trialsIn("tsx");

/** A component with a listener that does something with a text. */
const held = (
  before: string,
  code: string,
  because: string,
  {
    text = "<b id='t'>0</b>",
    when = ", []",
    more = "",
    word = "",
    event = "click",
  }: { text?: string; when?: string; more?: string; word?: string; event?: string } = {},
) => {
  const listener = word === "function" ? `function (event) { ${code} }` : `${word}(event) => { ${code} }`;
  return js.holds(
    `
    import { useEffect } from "react";
    export function Jar({ a }) {
      useEffect(() => {
        const go = document.getElementById("go");
        const text = document.getElementById("t");
        ${before}
        go.addEventListener("${event}", ${listener});
      }${when});
      return <p><i id="go" ${more}>Go</i>${text}</p>;
    }
    `,
    because,
  );
};

export const componentState = rule({
  id: "javascript/component-state",
  kind: "idiom",
  title: "Keep in state what an effect sets in the document",
  why: "React does not know of elements that are changed by hand: it overwrites them, and nobody sees from the markup what is shown.",
  was: ofKind(component, { when: (node) => effectStatements(node).length > 0, together }),
  mentions: ["useEffect", "useLayoutEffect"],
  given: [
    about("everything that the effects do with their elements is understood", (plan, match) => {
      const code = codeFor(match, plan);
      return code instanceof NoState
        ? no("form.fits", code.why, code.at)
        : yes("form.fits", "everything that the effects do with their elements is understood");
    }),
    about("nothing else changes the elements", (plan) => {
      const other = lookedUpElsewhere(plan);
      return other
        ? no(
            "name.other-uses",
            `other code looks the element \`${other.id}\` up, and may change it`,
            other.at,
          )
        : yes("name.other-uses", "nothing else looks the elements up");
    }),
    about("what is shown is text", isText),
    about("listeners read what they read before", ({ fresher: [first] }) =>
      first
        ? unknown(
            "flow.used-later",
            `a listener sees the present value of \`${first.text}\`, and not the first one`,
            first,
          )
        : yes("flow.used-later", "listeners use no value of the component that could have changed"),
    ),
    about("nobody depends on when the document changes", ({ markup }) =>
      unknown(
        "flow.asynchronous",
        "the document changes when the component is rendered next, and not at once",
        markup,
      ),
    ),
  ],
  becomes: (match): Segment[] => codeFor(match, planIn(match) as Plan) as Segment[],
  trials: [
    js.rewrites(
      `
      import { useEffect } from "react";
      export function Counter() {
        useEffect(() => {
          let count = 0;
          const add = document.getElementById("add");
          const label = document.getElementById("count");
          add.addEventListener("click", () => {
            count += 1;
            label.textContent = String(count);
          });
        }, []);
        return (
          <div>
            <button id="add">Add</button>
            <span id="count">0</span>
          </div>
        );
      }
      `,
      `
      import { useState } from "react";
      export function Counter() {
        const [count, setCount] = useState(0);
        return (
          <div>
            <button onClick={() => setCount((count) => count + 1)}>Add</button>
            <span>{count}</span>
          </div>
        );
      }
      `,
      "likely",
    ),
    // The ids that a label and a style need stay; what is left of the effect stays too.
    tsx.rewrites(
      `
      import { useEffect } from "react";
      function Jar({ count }: { count: number }) {
        useEffect(() => {
          const box = document.getElementById("box") as HTMLInputElement;
          const note = document.querySelector<HTMLElement>("#note")!;
          let open: boolean = false;
          box.focus();
          box.addEventListener("keydown", (event: KeyboardEvent) => {
            if (event.key === "Enter") open = !open;
            note.hidden = !open;
          });
          note.hidden = !open;
          const timer = setInterval(() => console.log(box.value), 1000);
          return () => clearInterval(timer);
        }, []);
        return <p><label htmlFor="box">Jar</label><input id="box" /><style>{"#note { color: red }"}</style><b id="note">{count}</b></p>;
      }
      `,
      `
      import { useEffect, useRef, useState } from "react";
      function Jar({ count }: { count: number }) {
        const [open, setOpen] = useState(false);
        const boxRef = useRef<HTMLInputElement>(null);

        useEffect(() => {
          const box = boxRef.current as HTMLInputElement;
          box.focus();
          const timer = setInterval(() => console.log(box.value), 1000);
          return () => clearInterval(timer);
        }, []);
        return <p><label htmlFor="box">Jar</label><input id="box" ref={boxRef} onKeyDown={(event) => {
          if (event.key === "Enter") setOpen((open) => !open);
        }} /><style>{"#note { color: red }"}</style><b id="note" hidden={!open}>{count}</b></p>;
      }
      `,
      "likely",
    ),
    // Two statements on one line.
    js.rewrites(
      `
      import { useEffect } from "react";
      export function Lid() {
        useEffect(() => {
          let open = false;
          const lid = document.getElementById("lid");
          lid.addEventListener("click", () => {
            open = !open;
            lid.hidden = !open;
          });lid.hidden = !open;
          track();
        }, []);
        return <b id="lid">Lid</b>;
      }
      `,
      `
      import { useEffect, useState } from "react";
      export function Lid() {
        const [open, setOpen] = useState(false);

        useEffect(() => {
          track();
        }, []);
        return <b hidden={!open} onClick={() => setOpen((open) => !open)}>Lid</b>;
      }
      `,
      "likely",
    ),
    // A name of the component's own, and a listener that it was given.
    js.rewrites(
      `
      import { useEffect } from "react";
      export const Jar = ({ count, save }) => {
        useEffect(() => {
          let count = 1;
          document.getElementById("more").onclick = () => {
            count *= 2;
            document.getElementById("sum").textContent = count + " jars";
          };
          document.getElementById("sum").addEventListener("click", save);
        }, []);
        return <p title={count}><i id="more">+</i><b id="sum">1 jars</b></p>;
      };
      `,
      `
      import { useState } from "react";
      export const Jar = ({ count, save }) => {
        const [count_2, setCount_2] = useState(1);
        return <p title={count}><i onClick={() => setCount_2((count) => count * 2)}>+</i><b onClick={save}>{count_2} jars</b></p>;
      };
      `,
      "likely",
    ),
    // What is read behind a pause, and a switch that is read.
    js.rewrites(
      `
      import * as React from "react";
      export function Jar() {
        React.useEffect(() => {
          const go = document.getElementById("go");
          const log = document.getElementById("log");
          go.addEventListener("click", async () => {
            if (go.classList.contains("busy")) return;
            go.classList.add("busy");
            log.textContent = await fetch("/jars").then((answer) => answer.text());
            go.classList.remove("busy");
          });
        }, []);
        return <p><i id="go" className="wide">Go</i><b id="log" /></p>;
      }
      `,
      `
      import * as React from "react";
      export function Jar() {
        const [isBusy, setIsBusy] = React.useState(false);
        const [logText, setLogText] = React.useState("");
        return <p><i onClick={async () => {
          if (isBusy) return;
          setIsBusy(true);
          setLogText(await fetch("/jars").then((answer) => answer.text()));
          setIsBusy(false);
        }} className={isBusy ? "wide busy" : "wide"}>Go</i><b>{logText}</b></p>;
      }
      `,
      "likely",
    ),
    // What both ways of a branch set.
    js.rewrites(
      `
      import { useEffect } from "react";
      export function Jar() {
        useEffect(() => {
          let kilos = 1;
          const full = document.getElementById("f1");
          const show = () => {
            if (kilos > 3 || kilos === 0) {
              full.textContent = "full";
              full.classList.remove("open");
            } else {
              full.textContent = "open";
              full.classList.add("open");
            }
          };
          full.addEventListener("click", () => { kilos += 1; show(); });
        }, []);
        return <b id="f1" className="jar open">open</b>;
      }
      `,
      `
      import { useState } from "react";
      export function Jar() {
        const [kilos, setKilos] = useState(1);
        return <b onClick={() => setKilos((kilos) => kilos + 1)} className={!(kilos > 3 || kilos === 0) ? "jar open" : "jar"}>{kilos > 3 || kilos === 0 ? "full" : "open"}</b>;
      }
      `,
      "likely",
    ),
    // Listeners that React does not have stay in the effect.
    js.rewrites(
      `
      import { useEffect } from "react";
      export function Jar() {
        useEffect(() => {
          const go = document.getElementById("go");
          const log = document.getElementById("log");
          go.addEventListener("change", () => {
            log.title = "typed";
          });
          go.addEventListener("click", () => { log.textContent = "clicked"; }, { once: true });
        }, []);
        return <p><input id="go" /><b id="log" /></p>;
      }
      `,
      `
      import { useEffect, useRef, useState } from "react";
      export function Jar() {
        const [logTitle, setLogTitle] = useState();
        const [logText, setLogText] = useState("");
        const goRef = useRef(null);

        useEffect(() => {
          const go = goRef.current;
          go.addEventListener("change", () => {
            setLogTitle("typed");
          });
          go.addEventListener("click", () => { setLogText("clicked"); }, { once: true });
        }, []);
        return <p><input ref={goRef} /><b title={logTitle}>{logText}</b></p>;
      }
      `,
      "likely",
    ),
    js.ignores(
      "import { useEffect } from 'react';\nfunction A() { useEffect(() => { document.title = 'a'; }, []); return <b id='a' />; }",
    ),
    js.holds(
      "import { useEffect } from 'react';\nfunction A({ a }) { useEffect(() => { document.getElementById('a').hidden = true; }, []); return a ? <b id='a' /> : null; }",
      "in one place",
    ),
    js.ignores("function A() { document.getElementById('a').hidden = true; return <b id='a' />; }"),
    held("let n = 0;", "n += 1; text.textContent = n;", "begins again when `a` changes", { when: ", [a]" }),
    held("let n = 0;", "n += 1; text.textContent = n;", "after each rendering", { when: "" }),
    held("", "text.textContent = 'a';", "not always in the document", { text: "{a && <b id='t'>0</b>}" }),
    held("", "text.textContent = 'a';", "two elements have the id", { text: "<b id='t' /><i id='t' />" }),
    held("", "text.textContent = 'a';", "worked out elsewhere", { text: "<b id='t' {...a} />" }),
    held("", "text.textContent = 'a';", "no element of the document", { text: "<Card id='t' />" }),
    held("", "text.textContent = 'a';", "shows at first is not written out", { text: "<b id='t'><i /></b>" }),
    held("", "text.textContent = 'a';", "another listener for `click`", { more: "onClick={a}" }),
    held("", "text.innerHTML = a; text.textContent = 'a';", "changed in another way"),
    held("", "flash(text); text.textContent = 'a';", "changed in another way"),
    held("const { b } = a;", "text.textContent = String(b);", "cannot move out of it"),
    held("", "text.title = a;", "works out `title` as well", { text: "<b id='t' title={a.title} />" }),
    held("", "go.innerHTML = a; text.textContent = 'a';", "has a ref already", { more: "ref={a.ref}" }),
    js.holds(
      "import { useEffect } from 'react';\nfunction A() { useEffect(() => { document.getElementById('t').title = 'a'; }, []); return <b id='t' />; }\nfunction clear() { document.querySelector('#t').textContent = ''; }",
      "looks the element `t` up",
    ),
    // A listener that the effect makes, one that is not always there, what a module holds, another look-up.
    held("const save = later(() => go);", "text.textContent = 'a';", "cannot move out of it", {
      event: 'click", save); text.addEventListener("click',
    }),
    held("if (a) return;", "text.textContent = 'a';", "may end before"),
    held("const step = a;", "text.textContent = 'a' + step;", "something else in the component", {
      text: "<b id='t'>{step}</b>",
    }),
    held("", "text.textContent = a === 1;", "in another way by React"),
    held("let n = 0;", "n += 1; text.style.width = n;", "in another way by React"),
    js.holds(
      "import { useEffect } from 'react';\nfunction A() { useEffect(() => { document.getElementById('t').title = 'a'; }, []); const f = () => { document.getElementById('t').textContent = ''; }; return <b id='t' onClick={f} />; }",
      "looks the element `t` up",
    ),
    js.rewrites(
      "import { useEffect } from 'react';\nimport { cart } from './cart';\nfunction A() {\n  useEffect(() => {\n    const t = document.getElementById('t');\n    t.onclick = () => {\n      cart.add();\n      t.title = cart.name;\n    };\n  }, []);\n  return <b id='t' title='' />;\n}",
      "import { useState } from 'react';\nimport { cart } from './cart';\nfunction A() {\n  const [tTitle, setTTitle] = useState(\"\");\n  return <b onClick={() => {\n    cart.add();\n    setTTitle(cart.name);\n  }} title={tTitle} />;\n}",
      "likely",
    ),
    held("let n = 0;", "setTimeout(() => { text.textContent = a + n; }); n += 1;", "read later"),
    held("let n = 0;", "n += 1; text.title = await a; text.textContent = n; n += 2;", "after a pause", {
      word: "async ",
    }),
    held("let n = 0;", "n += 1; if (a) text.textContent = n; n += 1;", "read after it was changed"),
    held("let n = 0;", "for (const x of a) { n += x; text.textContent = n; n += 1; }", "in a loop"),
    held("const list = [];", "list.push(1); text.textContent = list.length;", "is made when"),
    held("let list = [];", "list.push(1); list = list; text.textContent = list.length;", "changed in place"),
    held("let n = 0;", "text.textContent = n; n = a(n += 1);", "goes somewhere else"),
    held("let n = 0;", "this.n = n += 1;", "is that of the listener", { word: "function" }),
    held("let n = performance.now();", "n += 1; text.textContent = n;", "begins with what is worked out"),
    held("", "text.textContent = event.composedPath();", "events of React do not have"),
    held("let n = 0;", "n += event.movementX; text.textContent = n; n += 1;", "events of React do not have"),
    held("let n = 0;", "if (n > 3) return; n += 1;", "many can come", { event: "mousemove" }),
    held("let f = null;", "f = () => a; text.textContent = 'a'; f = null;", "a function is kept"),
    held("", "text.textContent = 'a'; go.removeEventListener('click', a);", "taken away before"),
  ],
});
