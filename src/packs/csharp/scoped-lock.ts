import {
  classesNamed,
  condition,
  csharp,
  holes,
  no,
  none,
  placeOf,
  rule,
  sideEffectFree,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import { isSameThroughout } from "../family/members.js";

const { what, body, taken, any, args } = holes({
  what: "expression",
  body: "statements",
  taken: "name",
  any: "expression",
  args: "arguments",
});

const { rewrites, holds, ignores } = trialsIn("csharp");

export const scopedLock = rule({
  id: "csharp/scoped-lock",
  kind: "idiom",
  title: "Use a lock statement to hold a monitor",
  why: "Enter and Exit must be kept in step by hand, and Enter outside of the try can leave the lock held.",
  was: [
    csharp`
      Monitor.Enter(${what});
      try {
        ${body}
      } finally {
        Monitor.Exit(${what});
      }
    `,
    csharp`
      bool ${taken} = false;
      try {
        Monitor.Enter(${what}, ref ${taken});
        ${body}
      } finally {
        if (${taken}) { Monitor.Exit(${what}); }
      }
    `,
  ],
  given: [
    condition("`Monitor` is the one of the library", (match) => {
      const [own] = classesNamed(match.tree, "Monitor").classes;
      return own
        ? unknown("name.library", `the project has a \`Monitor\` of its own (${placeOf(own)})`, match.node)
        : yes("name.library", "`Monitor` is the one of the library");
    }),
    condition("the lock is the same object throughout", (match) => {
      const node = match.the(what);
      return node.is(["identifier", "this", "member_access_expression"])
        ? isSameThroughout(node, match.all(body))
        : no("flow.written", `\`${node.text}\` is worked out again where the lock is let go`, node);
    }),
    sideEffectFree(what),
    condition("the lock is an object", (match) => {
      const node = match.the(what);
      const type = node.is("this") ? undefined : typeOf(node);
      const isValue =
        type !== undefined && /^(int|long|bool|char|byte|double|decimal|DateTime|Guid)$/.test(type.name);
      return isValue
        ? no("type.is", `${type.why}, and a value cannot be locked`, type.at)
        : yes("type.is", "it is an object, or it could not be locked before");
    }),
    none(csharp.expression`await ${any}`, {
      in: body,
      must: "nothing waits while the lock is held",
      because: "`await` may not stand in a lock",
      code: "flow.asynchronous",
    }),
    none([csharp`Monitor.Exit(${args})`, csharp`Monitor.Enter(${args})`], {
      in: body,
      must: "the lock is let go in one place",
      because: "the lock is let go or taken here too",
      code: "resource.released-once",
    }),
  ],
  becomes: csharp`
    lock (${what})
    {
      ${body}
    }
  `,
  trials: [
    rewrites(
      `
      class Hive
      {
          readonly object gate = new object();
          void Add()
          {
              Monitor.Enter(gate);
              try
              {
                  bees++; // one more
              }
              finally
              {
                  Monitor.Exit(gate);
              }
          }
      }
      `,
      `
      class Hive
      {
          readonly object gate = new object();
          void Add()
          {
              lock (gate)
              {
                  bees++; // one more
              }
          }
      }
      `,
    ),
    rewrites(
      "class A { object gate; void F() { Monitor.Enter(gate); try { n++; } finally { Monitor.Exit(gate); } } }\n",
      "class A { object gate; void F() { lock (gate)\n{ n++; } } }\n",
    ),
    rewrites(
      "class A { object gate; void F() { Monitor.Enter(this.gate); try { return; } finally { Monitor.Exit(this.gate); } } }\n",
      "class A { object gate; void F() { lock (this.gate)\n{ return; } } }\n",
    ),
    rewrites(
      "class A { object gate; void F() { bool held = false; try { Monitor.Enter(gate, ref held); n++; } finally { if (held) Monitor.Exit(gate); } } }\n",
      "class A { object gate; void F() { lock (gate)\n{\n    n++;\n} } }\n",
    ),
    rewrites(
      "class A { object Gate { get { return new object(); } } void F() { Monitor.Enter(Gate); try { n++; } finally { Monitor.Exit(Gate); } } }\n",
      "class A { object Gate { get { return new object(); } } void F() { lock (Gate)\n{ n++; } } }\n",
      "likely",
    ),
    holds(
      "class A { void F() { Monitor.Enter(Gate()); try { n++; } finally { Monitor.Exit(Gate()); } } }\n",
      "worked out again",
    ),
    holds(
      "class A { object gate; void F() { Monitor.Enter(gate); try { gate = null; } finally { Monitor.Exit(gate); } } }\n",
      "another object",
    ),
    holds(
      "class A { async Task F() { Monitor.Enter(gate); try { await G(); } finally { Monitor.Exit(gate); } } }\n",
      "await",
    ),
    holds(
      "class A { object gate; void F() { Monitor.Enter(gate); try { Monitor.Exit(gate); G(); Monitor.Enter(gate); } finally { Monitor.Exit(gate); } } }\n",
      "here too",
    ),
    ignores("class A { void F() { Monitor.Enter(gate); try { n++; } finally { Monitor.Exit(other); } } }\n"),
    ignores(
      "class A { object gate; void F() { if (Monitor.TryEnter(gate)) { try { n++; } finally { Monitor.Exit(gate); } } } }\n",
    ),
  ],
});
