import { all, condition, csharp, holes, no, nameInFile, rule, trialsIn, yes } from "../../index.js";
import type { Answer, Match } from "../../index.js";
import { onlyUse } from "../../index.js";

const { handler, event, args } = holes({
  handler: "name",
  event: { kind: "expression", node: ["identifier", "member_access_expression"] },
  args: "arguments",
});

/** A copy made only to be tested and called needs no name. */
function isOnlyCopied(match: Match): Answer {
  const name = match.textOf(handler);
  const other = nameInFile(name, match.tree).references.find(({ node }) => {
    const isInside = node.start >= match.found.start && node.end <= match.found.end;
    return !isInside && match.node.parent?.holds(node);
  });
  return other
    ? no("name.other-uses", `\`${name}\` is used here too`, other.node)
    : yes("name.other-uses", `\`${name}\` is used only here`);
}

const { rewrites, ignores, holds } = trialsIn("csharp");

export const raisedEvent = rule({
  id: "csharp/raised-event",
  kind: "idiom",
  title: "Use ?.Invoke to raise an event",
  why: "The copy that keeps the last handler from vanishing between test and call is what ?. makes by itself.",
  target: "6.0",
  was: [
    csharp`var ${handler} = ${event}; if (${handler} != null) { ${handler}(${args}); }`,
    csharp`EventHandler ${handler} = ${event}; if (${handler} != null) { ${handler}(${args}); }`,
    csharp`PropertyChangedEventHandler ${handler} = ${event}; if (${handler} != null) { ${handler}(${args}); }`,
    csharp`var ${handler} = ${event}; if (${handler} != null) { ${handler}.Invoke(${args}); }`,
  ],
  given: [
    all(onlyUse(handler), condition("the copy is used for nothing else", isOnlyCopied)),
    condition("the handlers are not given the copy", (match) => {
      const use = match.all(args).flatMap((one) => one.mentions(match.textOf(handler)))[0];
      return use
        ? no("name.other-uses", `\`${use.text}\` is used here too`, use)
        : yes("name.other-uses", "no argument uses the copy");
    }),
  ],
  becomes: csharp`${event}?.Invoke(${args});`,
  trials: [
    rewrites(
      `
      class Hive {
          void Swarm() {
              var handler = Swarmed;
              if (handler != null)
              {
                  handler(this, EventArgs.Empty);
              }
          }
      }
      `,
      `
      class Hive {
          void Swarm() {
              Swarmed?.Invoke(this, EventArgs.Empty);
          }
      }
      `,
    ),
    rewrites(
      "class A { void F() { EventHandler h = this.Done; if (h != null) h(this, e); } }",
      "class A { void F() { this.Done?.Invoke(this, e); } }",
    ),
    rewrites(
      "class A { void F() { var h = Done; if (null != h) { h.Invoke(1); } } }",
      "class A { void F() { Done?.Invoke(1); } }",
    ),
    holds("class A { void F() { var h = Done; if (h != null) h(1); log(h); } }", "is used here too"),
    ignores("class A { void F() { var h = Find(); if (h != null) h(1); } }"),
    ignores("class A { void F() { var h = Done; if (h != null) g(1); } }"),
    ignores("class A { void F() { var h = Done; if (h != null) h(1); else g(); } }"),
    ignores("class A { void F() { var h = Done; n++; if (h != null) h(1); } }"),
  ],
});
