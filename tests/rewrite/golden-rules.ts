/** Rules for the golden pairs: each moves code in or out, joins or splits lines, in every language alike. */
import {
  cpp,
  csharp,
  holes,
  java,
  javascript,
  php,
  powershell,
  python,
  rule,
  ruby,
  type Becomes,
  type Rule,
  type Snippet,
} from "uvran";

const { a, b, body, args } = holes({
  a: "expression",
  b: "expression",
  body: "statements",
  args: "arguments",
});

let count = 0;
function golden(was: Snippet, becomes: Becomes): Rule {
  const id = `golden/${was.language}-${++count}`;
  return rule({ id, kind: "idiom", title: "Move on", why: "It is old.", was, becomes, trials: [] });
}

export const GOLDEN_RULES: readonly Rule[] = [
  // moved in
  golden(
    javascript`
      begin(${a});
      ${body}
      finish(${a});
    `,
    javascript`
      during(${a}, () => {
        ${body}
      });
    `,
  ),
  // moved out
  golden(javascript`if (always) { ${body} }`, javascript`${body}`),
  // parentheses by need
  golden(javascript`times(${a}, ${b})`, javascript`${a} * ${b}`),
  // words kept apart
  golden(javascript`!${a}`, javascript`isNot(${a})`),
  golden(javascript`record(${args})`, javascript`log.record(${args})`),
  golden(
    python`
      begin(${a})
      ${body}
      finish(${a})
    `,
    python`
      with during(${a}):
          ${body}
    `,
  ),
  golden(
    python`
      if always:
          ${body}
    `,
    python`${body}`,
  ),
  golden(python`times(${a}, ${b})`, python`${a} * ${b}`),
  golden(python`-${a}`, python`negative(${a})`),
  golden(python`record(${args})`, python`log.record(${args})`),
  golden(
    java`
      begin(${a});
      ${body}
      finish(${a});
    `,
    java`
      try (var span = during(${a})) {
          ${body}
      }
    `,
  ),
  golden(java`if (always) { ${body} }`, java`${body}`),
  golden(java`times(${a}, ${b})`, java`${a} * ${b}`),
  golden(java`!${a}`, java`isNot(${a})`),
  golden(java`record(${args})`, java`log.record(${args})`),
  golden(
    cpp`
      begin(${a});
      ${body}
      finish(${a});
    `,
    cpp`
      {
        Span span(${a});
        ${body}
      }
    `,
  ),
  golden(cpp`if (always) { ${body} }`, cpp`${body}`),
  golden(cpp`times(${a}, ${b})`, cpp`${a} * ${b}`),
  golden(cpp`!${a}`, cpp`isNot(${a})`),
  golden(cpp`record(${args})`, cpp`log.record(${args})`),
  golden(
    csharp`
      Begin(${a});
      ${body}
      Finish(${a});
    `,
    csharp`
      using (During(${a}))
      {
          ${body}
      }
    `,
  ),
  golden(csharp`if (always) { ${body} }`, csharp`${body}`),
  golden(csharp`Times(${a}, ${b})`, csharp`${a} * ${b}`),
  golden(csharp`!${a}`, csharp`IsNot(${a})`),
  golden(csharp`Record(${args})`, csharp`Log.Record(${args})`),
  golden(
    php`
      begin(${a});
      ${body}
      finish(${a});
    `,
    php`
      during(${a}, function () {
          ${body}
      });
    `,
  ),
  golden(php`if ($always) { ${body} }`, php`${body}`),
  golden(php`times(${a}, ${b})`, php`${a} * ${b}`),
  golden(php`!${a}`, php`isNot(${a})`),
  golden(php`record(${args})`, php`Log::record(${args})`),
  golden(
    ruby`
      start(${a})
      ${body}
      finish(${a})
    `,
    ruby`
      during(${a}) do
        ${body}
      end
    `,
  ),
  golden(
    ruby`
      if always
        ${body}
      end
    `,
    ruby`${body}`,
  ),
  golden(ruby`times(${a}, ${b})`, ruby`${a} * ${b}`),
  golden(ruby`!${a}`, ruby`is_not(${a})`),
  golden(ruby`record(${args})`, ruby`log.record(${args})`),
  golden(
    powershell`
      Start-Span ${a}
      ${body}
      Stop-Span ${a}
    `,
    powershell`
      Use-Span ${a} {
          ${body}
      }
    `,
  ),
  golden(powershell`if ($always) { ${body} }`, powershell`${body}`),
  golden(powershell`$hive.Times(${a}, ${b})`, powershell`${a} * ${b}`),
  golden(powershell`!${a}`, powershell`-not ${a}`),
];
