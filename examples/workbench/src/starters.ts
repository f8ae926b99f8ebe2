import type { BenchState } from "./state";

/** A rule with code to try it on, to begin with. */
export interface Starter extends Omit<BenchState, "edit"> {
  readonly title: string;
  readonly language: string;
}

export const STARTERS: readonly Starter[] = [
  {
    title: "Python: the index and the item of a list",
    language: "python",
    samples: [
      {
        path: "inspections.py",
        text: `def moods(rows):
    found = []
    for i in range(len(rows)):  # numbered for the minutes
        # hive and mood
        found.append((i, rows[i]))
    return found


def doubled(scores: list):
    for i in range(len(scores)):
        scores[i] = scores[i] * 2
`,
      },
      {
        path: "labels.py",
        text: `def labels():
    jars = ["linden", "heather", "clover"]
    for n in range(len(jars)):
        print(n, jars[n].title())
    for n in range(3):
        print(n)
`,
      },
    ],
    rule: `import { each, fresh, holes, neverWritten, python, rule, trialsIn, unchangedDuring } from "uvran";

const { index, items, body } = holes({ index: "name", items: "expression", body: "statements" });
const item = fresh("item", { singularOf: items });
const { rewrites, holds } = trialsIn("python");

export const indexAndItem = rule({
  id: "python/numbered-items",
  kind: "idiom",
  title: "Take the index and the item together",
  why: "Looking the item up by index hides what the loop is about.",
  was: python\`
    for \${index} in range(len(\${items})):
        \${body}
  \`,
  given: [neverWritten(index, { in: body }), unchangedDuring(items, { during: body })],
  becomes: python\`
    for \${index}, \${item} in enumerate(\${items}):
        \${each(python\`\${items}[\${index}]\`, { in: body }).becomes(item)}
  \`,
  trials: [
    rewrites(
      \`
        jars = [3, 4]
        for i in range(len(jars)):
            print(i, jars[i])
      \`,
      \`
        jars = [3, 4]
        for i, jar in enumerate(jars):
            print(i, jar)
      \`,
    ),
    holds(
      \`
        for i in range(len(jars)):
            jars[i] = 0
      \`,
      "is changed here",
    ),
  ],
});
`,
  },
  {
    title: "TypeScript: a value or its fallback, by meaning",
    language: "typescript",
    samples: [
      {
        path: "orders.ts",
        text: `interface Order { number?: number; note: string | null; jars?: string[] }

export function numberOf(order: Order): number {
  const found = order.number;
  return found !== null && found !== undefined ? found : 0;
}

export function noteOf(order: Order): string {
  if (order.note == null) {
    return "none"; // nothing was said
  }
  return order.note;
}

export function jarsOf(order: Order | undefined): string[] {
  let jars = order?.jars;
  if (!jars) jars = [];
  return jars;
}
`,
      },
    ],
    rule: `import { choice, holes, present, rule, trialsIn, typescript } from "uvran";

const { value, fallback } = holes({ value: "expression", fallback: "expression" });
const { rewrites, ignores } = trialsIn("typescript");

export const orElse = rule({
  id: "typescript/or-else",
  kind: "idiom",
  title: "Fall back with ??",
  why: "The value is written twice, and there are many ways to get the test wrong.",
  was: choice(present(value), value, fallback),
  // A test for null alone lets undefined through, and ?? does not.
  where: [({ tests }) => tests.every(({ asks }) => asks === "missing")],
  becomes: typescript.expression\`\${value} ?? \${fallback}\`,
  trials: [
    rewrites("const a = jar !== null && jar !== undefined ? jar : spare;", "const a = jar ?? spare;"),
    ignores("const a = jar !== null ? jar : spare;"),
    ignores("const a = jar !== lid ? jar : spare;"),
  ],
});
`,
  },
  {
    title: "JavaScript: the last item of a list",
    language: "javascript",
    samples: [
      {
        path: "shelf.js",
        text: `const jars = ["linden", "heather"];
const newest = jars[jars.length - 1];
const lid = shelf.jars[shelf.jars.length - 1].lid;
const other = jars[lids.length - 1];
const drawn = draw()[draw().length - 1];
`,
      },
    ],
    rule: `import { holes, isOfType, javascript, rule, sideEffectFree, trialsIn } from "uvran";

const { list } = holes({ list: "expression" });
const { rewrites, holds, ignores } = trialsIn("javascript");

export const fromTheEnd = rule({
  id: "javascript/from-the-end",
  kind: "idiom",
  title: "Count from the end with at()",
  why: "The list is written twice, and the reader must check that both are the same.",
  was: javascript\`\${list}[\${list}.length - 1]\`,
  given: [sideEffectFree(list), isOfType(list, "Array")],
  becomes: javascript\`\${list}.at(-1)\`,
  trials: [
    rewrites("const jars = [3];\\nf(jars[jars.length - 1]);", "const jars = [3];\\nf(jars.at(-1));"),
    rewrites("f(jars[jars.length - 1]);", "f(jars.at(-1));", "possible"),
    ignores("f(jars[lids.length - 1]);"),
    holds("f(next()[next().length - 1]);", "calls something"),
  ],
});
`,
  },
  {
    title: "Java: an empty text",
    language: "java",
    samples: [
      {
        path: "Label.java",
        text: `class Label {
    boolean isBlank(String name, java.util.List<String> lots) {
        if (name.length() == 0) return true;
        return 0 == lots.get(0).length();
    }
}
`,
      },
    ],
    rule: `import { holes, isOfType, java, rule, trialsIn } from "uvran";

const { text } = holes({ text: "expression" });
const { rewrites, ignores } = trialsIn("java");

export const emptyText = rule({
  id: "java/empty-text",
  kind: "idiom",
  title: "Ask a text whether it is empty",
  why: "A length that is compared with zero asks a question in a roundabout way.",
  was: java\`\${text}.length() == 0\`,
  given: [isOfType(text, "String")],
  becomes: java\`\${text}.isEmpty()\`,
  trials: [
    rewrites(
      "class A { boolean f(String name) { return name.length() == 0; } }",
      "class A { boolean f(String name) { return name.isEmpty(); } }",
    ),
    ignores("class A { boolean f(String name) { return name.length() == 1; } }"),
  ],
});
`,
  },
  {
    title: "C++: a handle and all its uses",
    language: "cpp",
    samples: [
      {
        path: "hive.cpp",
        text: `void inspect() {
  Hive *hive = open("north");
  hive->inspect();
  weigh(hive);
  release(hive);
}

Hive *kept() {
  Hive *hive = open("south");
  return hive;
}
`,
      },
    ],
    rule: `import { cpp, everyUseOf, holes, need, rule, trialsIn, use } from "uvran";

const { type, name, path, member } = holes({
  type: "type",
  name: "name",
  path: "arguments",
  member: "name",
});
const { rewrites } = trialsIn("cpp");

export const ownedHive = rule({
  id: "cpp/owned-hive",
  kind: "idiom",
  title: "Let a smart pointer release the handle",
  why: "A handle released by hand leaks on every way that leaves early.",
  was: cpp\`\${type} *\${name} = open(\${path});\`,
  becomes: cpp\`std::unique_ptr<\${type}> \${name}(open(\${path}));\`,
  needs: [need("<memory>")],
  uses: everyUseOf(name, [
    use(cpp\`release(\${name});\`).goes(),
    use(cpp\`\${name}->\${member}\`).stays(),
    use(cpp\`\${name}\`).as("argument").becomes(cpp\`\${name}.get()\`),
  ]),
  trials: [
    rewrites(
      \`
        void f() {
          Hive *hive = open(1);
          release(hive);
        }
      \`,
      \`
        #include <memory>

        void f() {
          std::unique_ptr<Hive> hive(open(1));
        }
      \`,
    ),
  ],
});
`,
  },
  {
    title: "C#: an item of a tuple, as advice",
    language: "csharp",
    samples: [
      {
        path: "Lots.cs",
        text: `class Lots {
    int Weigh(System.Tuple<string, int> lot) {
        Log(lot.Item1);
        return lot.Item2;
    }
}
`,
      },
    ],
    rule: `import { csharp, holes, rule, trialsIn } from "uvran";

const { tuple, item } = holes({ tuple: "expression", item: { kind: "name", text: /^Item[1-8]$/ } });
const { reports, ignores } = trialsIn("csharp");

export const readByPosition = rule({
  id: "csharp/read-by-position",
  kind: "smell",
  title: "Name what a tuple holds",
  why: "A position says nothing about what stands there.",
  was: csharp\`\${tuple}.\${item}\`,
  advice: (match) => \`Give \${match.textOf(item)} of \${match.textOf(tuple)} a name.\`,
  trials: [
    reports("class A { object F(dynamic lot) { return lot.Item1; } }", "Give Item1 of lot a name."),
    ignores("class A { object F(dynamic lot) { return lot.Item; } }"),
  ],
});
`,
  },
  {
    title: "PHP: one more item in an array",
    language: "php",
    samples: [
      {
        path: "lots.php",
        text: `<?php
function lots(array $rows): array {
    $lots = [];
    foreach ($rows as $row) {
        array_push($lots, $row['lot']);
    }
    $count = array_push($lots, 'spare');
    return $lots;
}
`,
      },
    ],
    rule: `import { builtin, holes, php, rule, trialsIn } from "uvran";

const { list, item } = holes({ list: "expression", item: "expression" });
const { rewrites, ignores } = trialsIn("php");

export const oneMore = rule({
  id: "php/one-more",
  kind: "idiom",
  title: "Append to an array with []",
  why: "A call for a single item says no more, and is slower.",
  was: php.statement\`array_push(\${list}, \${item});\`,
  given: [builtin("array_push")],
  becomes: php.statement\`\${list}[] = \${item};\`,
  trials: [
    rewrites("<?php\\n$jars = [];\\narray_push($jars, 3);\\n", "<?php\\n$jars = [];\\n$jars[] = 3;\\n"),
    ignores("<?php\\narray_push($jars, 3, 4);\\n"),
  ],
});
`,
  },
  {
    title: "Ruby: a key that may be missing",
    language: "ruby",
    samples: [
      {
        path: "prices.rb",
        text: `def price(sort)
  prices = { linden: 9, heather: 12 }
  if prices.key?(sort)
    prices[sort]
  else
    0
  end
end

def label(names, lot)
  names.key?(lot) ? names[lot] : draw_label(lot)
end
`,
      },
    ],
    rule: `import { choice, hasKey, holes, isOfType, item, ruby, rule, sideEffectFree, trialsIn } from "uvran";

const { map, key, fallback } = holes({ map: "expression", key: "expression", fallback: "expression" });
const { rewrites, holds } = trialsIn("ruby");

export const fetched = rule({
  id: "ruby/fetched",
  kind: "idiom",
  title: "Fetch a key with its fallback",
  why: "The key is looked up twice.",
  was: choice(hasKey(item(map, key)), item(map, key), fallback),
  given: [isOfType(map, "Hash"), sideEffectFree(fallback)],
  becomes: ruby.expression\`\${map}.fetch(\${key}, \${fallback})\`,
  trials: [
    rewrites(
      "jars = {}\\nx = jars.key?(:wax) ? jars[:wax] : 0\\n",
      "jars = {}\\nx = jars.fetch(:wax, 0)\\n",
    ),
    holds("x = jars.key?(:wax) ? jars[:wax] : draw()\\n", "calls something"),
  ],
});
`,
  },
  {
    title: "PowerShell: output that nobody reads",
    language: "powershell",
    samples: [
      {
        path: "Backup.ps1",
        text: `function Save-Hives {
    New-Hive -Name north | Out-Null
    $lots = Get-Lot
    Remove-Hive south | Out-Null
}
`,
      },
    ],
    rule: `import { holes, powershell, rule, trialsIn } from "uvran";

const { call } = holes({ call: "expression" });
const { rewrites, ignores } = trialsIn("powershell");

export const unread = rule({
  id: "powershell/unread-output",
  kind: "idiom",
  title: "Throw output away with $null",
  why: "Each object goes through the pipeline only to be thrown away.",
  was: powershell.statement\`\${call} | Out-Null\`,
  becomes: powershell.statement\`$null = \${call}\`,
  trials: [
    rewrites("Add-Hive north | Out-Null\\n", "$null = Add-Hive north\\n"),
    ignores("Add-Hive north | Out-File hives.txt\\n"),
  ],
});
`,
  },
];
