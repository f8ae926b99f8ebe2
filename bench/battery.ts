/**
 * Mechanical rules whose result is known: there and back again must give every byte as it was. Each pair is
 * written once for each language, as its users would write it.
 */
import {
  copy,
  cpp,
  csharp,
  holes,
  java,
  javascript,
  matchesIn,
  compile,
  php,
  powershell,
  python,
  rule,
  ruby,
  typescript,
  type Becomes,
  type Hole,
  type LanguageId,
  type Match,
  type Rule,
  type Snippet,
} from "uvran/core";

/** Two rules of which the second undoes the first; without a second, the first must change nothing. */
export interface ThereAndBack {
  readonly name: string;
  readonly there: Rule;
  readonly back?: Rule;
}

const h = holes({
  a: "expression",
  b: "expression",
  f: "expression",
  m: "name",
  x: "expression",
  args: "arguments",
  params: "parameters",
  body: "statements",
  mods: "modifiers",
  type: "type",
  name: "name",
  value: "expression",
});
type Holes = typeof h;

function mechanical(
  id: string,
  was: Snippet | readonly Snippet[],
  becomes: Becomes,
  where: readonly ((match: Match) => boolean)[] = [],
): Rule {
  const why = "It shows that a rewrite can be taken back to the byte.";
  return rule({ id: `battery/${id}`, kind: "idiom", title: id, why, was, becomes, where, trials: [] });
}

const isLiteral = (match: Match, hole: Hole): boolean =>
  /^(["'`\d-]|null$|nullptr$|None$|nil$|true$|false$|\$null$)/i.test(match.textOf(hole));
const inOrder = (match: Match): boolean => match.the(h.a).start < match.the(h.b).start;
/** `return(a)===1` gets a space on the way there, which stays. */
const isGlued = (match: Match): boolean => /[\w$]/.test(match.tree.text[match.found.start - 1] ?? "");
/** `null == a?.b` (C#) and `1 === a!.b` (TypeScript) need parentheses for the grammars, which stay; left out. */
const literalLast = (match: Match): boolean =>
  isLiteral(match, h.b) && !isLiteral(match, h.a) && !/[?!]\./.test(match.textOf(h.a));
const isNew = (match: Match): boolean => !match.textOf(h.x).includes("uvranWrap");

/** The call has its brackets, which may be left out in some languages and then cannot be brought back. */
const hasBrackets = (match: Match): boolean =>
  /^\s*\(/.test(match.tree.text.slice(match.has(h.m) ? match.the(h.m).end : match.the(h.f).end));

/** What is written differently in each language. */
interface Forms {
  readonly equal: (h: Holes) => Snippet;
  readonly swapped: (h: Holes) => Snippet;
  readonly call: (h: Holes) => Snippet;
  readonly wrapped: (h: Holes) => Snippet;
  readonly unwrap: (h: Holes) => Snippet;
  readonly anyCall: (h: Holes) => Snippet;
  readonly loop: (h: Holes) => Snippet;
  readonly looped: (h: Holes) => Snippet;
  readonly functions: (h: Holes) => readonly Snippet[];
  readonly local: (h: Holes) => Snippet;
}

const FORMS: Readonly<Partial<Record<LanguageId, Forms>>> = {
  javascript: {
    equal: ({ a, b }) => javascript`${a} === ${b}`,
    swapped: ({ a, b }) => javascript`uvranSwap(${b} === ${a})`,
    call: ({ f, x }) => javascript`${f}(${x})`,
    wrapped: ({ f, x }) => javascript`${f}(uvranWrap(${x}))`,
    unwrap: ({ x }) => javascript`uvranWrap(${x})`,
    anyCall: ({ f, args }) => javascript`${f}(${args})`,
    loop: ({ a, body }) => javascript`
      while (${a}) {
        ${body}
      }
    `,
    looped: ({ a, body }) => javascript`
      if (uvranLoop) {
        while (${a}) {
          ${body}
        }
      }
    `,
    functions: ({ name, params, body }) => [javascript`function ${name}(${params}) { ${body} }`],
    local: ({ name, value }) => javascript`const ${name} = ${value};`,
  },
  typescript: {
    equal: ({ a, b }) => typescript`${a} === ${b}`,
    swapped: ({ a, b }) => typescript`uvranSwap(${b} === ${a})`,
    call: ({ f, x }) => typescript`${f}(${x})`,
    wrapped: ({ f, x }) => typescript`${f}(uvranWrap(${x}))`,
    unwrap: ({ x }) => typescript`uvranWrap(${x})`,
    anyCall: ({ f, args }) => typescript`${f}(${args})`,
    loop: ({ a, body }) => typescript`
      while (${a}) {
        ${body}
      }
    `,
    looped: ({ a, body }) => typescript`
      if (uvranLoop) {
        while (${a}) {
          ${body}
        }
      }
    `,
    functions: ({ name, params, type, body }) => [
      typescript`function ${name}(${params}): ${type} { ${body} }`,
      typescript`function ${name}(${params}) { ${body} }`,
    ],
    local: ({ name, value }) => typescript`const ${name} = ${value};`,
  },
  python: {
    equal: ({ a, b }) => python`${a} == ${b}`,
    swapped: ({ a, b }) => python`uvranSwap(${b} == ${a})`,
    call: ({ f, x }) => python`${f}(${x})`,
    wrapped: ({ f, x }) => python`${f}(uvranWrap(${x}))`,
    unwrap: ({ x }) => python`uvranWrap(${x})`,
    anyCall: ({ f, args }) => python`${f}(${args})`,
    loop: ({ a, body }) => python`
      while ${a}:
          ${body}
    `,
    looped: ({ a, body }) => python`
      if uvranLoop:
          while ${a}:
              ${body}
    `,
    functions: ({ name, params, body }) => [
      python`
      def ${name}(${params}):
          ${body}
    `,
    ],
    local: ({ name, value }) => python`${name} = ${value}`,
  },
  java: {
    equal: ({ a, b }) => java`${a} == ${b}`,
    swapped: ({ a, b }) => java`uvranSwap(${b} == ${a})`,
    call: ({ f, m, x }) => java`${f}.${m}(${x})`,
    wrapped: ({ f, m, x }) => java`${f}.${m}(uvranWrap(${x}))`,
    unwrap: ({ x }) => java`uvranWrap(${x})`,
    anyCall: ({ f, m, args }) => java`${f}.${m}(${args})`,
    loop: ({ a, body }) => java`
      while (${a}) {
          ${body}
      }
    `,
    looped: ({ a, body }) => java`
      if (uvranLoop) {
          while (${a}) {
              ${body}
          }
      }
    `,
    functions: ({ mods, type, name, params, body }) => [
      java.member`${mods} ${type} ${name}(${params}) { ${body} }`,
    ],
    local: ({ type, name, value }) => java`${type} ${name} = ${value};`,
  },
  cpp: {
    equal: ({ a, b }) => cpp`${a} == ${b}`,
    swapped: ({ a, b }) => cpp`uvranSwap(${b} == ${a})`,
    call: ({ f, x }) => cpp`${f}(${x})`,
    wrapped: ({ f, x }) => cpp`${f}(uvranWrap(${x}))`,
    unwrap: ({ x }) => cpp`uvranWrap(${x})`,
    anyCall: ({ f, args }) => cpp`${f}(${args})`,
    loop: ({ a, body }) => cpp`
      while (${a}) {
        ${body}
      }
    `,
    looped: ({ a, body }) => cpp`
      if (uvranLoop) {
        while (${a}) {
          ${body}
        }
      }
    `,
    functions: ({ type, name, params, body }) => [cpp.file`${type} ${name}(${params}) { ${body} }`],
    local: ({ type, name, value }) => cpp`${type} ${name} = ${value};`,
  },
  csharp: {
    equal: ({ a, b }) => csharp`${a} == ${b}`,
    swapped: ({ a, b }) => csharp`uvranSwap(${b} == ${a})`,
    call: ({ f, x }) => csharp`${f}(${x})`,
    wrapped: ({ f, x }) => csharp`${f}(uvranWrap(${x}))`,
    unwrap: ({ x }) => csharp`uvranWrap(${x})`,
    anyCall: ({ f, args }) => csharp`${f}(${args})`,
    loop: ({ a, body }) => csharp`
      while (${a}) {
          ${body}
      }
    `,
    looped: ({ a, body }) => csharp`
      if (uvranLoop) {
          while (${a}) {
              ${body}
          }
      }
    `,
    functions: ({ mods, type, name, params, body }) => [
      csharp.member`${mods} ${type} ${name}(${params}) { ${body} }`,
    ],
    local: ({ type, name, value }) => csharp`${type} ${name} = ${value};`,
  },
  php: {
    equal: ({ a, b }) => php`${a} === ${b}`,
    swapped: ({ a, b }) => php`uvranSwap(${b} === ${a})`,
    call: ({ f, x }) => php`${f}(${x})`,
    wrapped: ({ f, x }) => php`${f}(uvranWrap(${x}))`,
    unwrap: ({ x }) => php`uvranWrap(${x})`,
    anyCall: ({ f, m, args }) => php`${f}->${m}(${args})`,
    loop: ({ a, body }) => php`
      while (${a}) {
          ${body}
      }
    `,
    looped: ({ a, body }) => php`
      if (uvranLoop()) {
          while (${a}) {
              ${body}
          }
      }
    `,
    functions: ({ mods, name, params, body }) => [
      php.member`${mods} function ${name}(${params}) { ${body} }`,
    ],
    local: ({ name, value }) => php`$${name} = ${value};`,
  },
  ruby: {
    equal: ({ a, b }) => ruby`${a} == ${b}`,
    swapped: ({ a, b }) => ruby`uvranSwap(${b} == ${a})`,
    call: ({ f, m, x }) => ruby`${f}.${m}(${x})`,
    wrapped: ({ f, m, x }) => ruby`${f}.${m}(uvranWrap(${x}))`,
    unwrap: ({ x }) => ruby`uvranWrap(${x})`,
    anyCall: ({ f, m, args }) => ruby`${f}.${m}(${args})`,
    loop: ({ a, body }) => ruby`
      if ${a}
        ${body}
      end
    `,
    looped: ({ a, body }) => ruby`
      while uvranLoop
        if ${a}
          ${body}
        end
      end
    `,
    functions: ({ name, params, body }) => [
      ruby`
      def ${name}(${params})
        ${body}
      end
    `,
    ],
    local: ({ name, value }) => ruby`${name} = ${value}`,
  },
  powershell: {
    equal: ({ a, b }) => powershell`${a} -eq ${b}`,
    swapped: ({ a, b }) => powershell`${b} -ieq ${a}`,
    call: ({ f, m, x }) => powershell`${f}.${m}(${x})`,
    wrapped: ({ f, m, x }) => powershell`${f}.${m}($uvran.uvranWrap(${x}))`,
    unwrap: ({ x }) => powershell`$uvran.uvranWrap(${x})`,
    anyCall: ({ m, args }) => powershell`${m} ${args}`,
    loop: ({ a, body }) => powershell`
      if (${a}) {
          ${body}
      }
    `,
    looped: ({ a, body }) => powershell`
      while ($uvranLoop) {
          if (${a}) {
              ${body}
          }
      }
    `,
    functions: ({ name, body }) => [
      powershell`
      function ${name} {
          ${body}
      }
    `,
    ],
    local: ({ a, value }) => powershell`${a} = ${value}`,
  },
};

/** The battery for one language; undefined for a language without one. */
export function batteryOf(id: LanguageId): ThereAndBack[] {
  const forms = FORMS[id];
  if (!forms) return [];
  const outsideLoop = (match: Match): boolean => {
    const [first, second, third] = match.node.ancestors();
    return ![first, second, third].some((above) => /^(if|while)\s*\(?\$?uvranLoop/.test(above?.text ?? ""));
  };
  return [
    {
      name: "swap",
      there: mechanical("swap", forms.equal(h), forms.swapped(h), [
        literalLast,
        inOrder,
        (match) => !isGlued(match),
        (match) => !(match.node.parent?.parent?.text.startsWith("uvranSwap(") ?? false),
      ]),
      back: mechanical("swap-back", forms.swapped(h), forms.equal(h), [literalLast]),
    },
    {
      name: "wrap",
      there: mechanical("wrap", forms.call(h), forms.wrapped(h), [
        isNew,
        hasBrackets,
        (match) => !/uvranWrap$/.test(match.has(h.m) ? match.textOf(h.m) : match.textOf(h.f)),
      ]),
      back: mechanical("wrap-back", forms.unwrap(h), () => holeOnly(id)),
    },
    {
      name: "rename",
      there: mechanical(
        "rename",
        forms.functions(h),
        renaming(id, forms, (name) => `uvran_${name}`),
      ),
      back: mechanical("rename-back", forms.functions(h), renamingBack),
    },
    {
      name: "indent",
      there: mechanical("indent", forms.loop(h), forms.looped(h), [outsideLoop]),
      back: mechanical("indent-back", forms.looped(h), forms.loop(h)),
    },
    { name: "itself", there: mechanical("itself", forms.anyCall(h), forms.anyCall(h)) },
  ];
}

function holeOnly(id: LanguageId): Snippet {
  const tags = { javascript, typescript, tsx: typescript, python, java, cpp, csharp, php, ruby, powershell };
  return tags[id]`${h.x}`;
}

/** Renames what a function declares, wherever its name is mentioned in the function. */
function renaming(id: LanguageId, forms: Forms, to: (name: string) => string): Becomes {
  return (match) => {
    const names = new Set<string>();
    const local = compile(forms.local(h), id);
    for (const statement of match.nodes) {
      for (const found of matchesIn(local, match.tree, statement.id)) {
        const name = (found.captures.get(h.name) ?? found.captures.get(h.a))!;
        const text = match.tree.text.slice(name.start, name.end);
        if (/^\$?[\p{L}_][\p{L}\p{N}_]*$/u.test(text) && !text.includes("uvran_")) names.add(text);
      }
    }
    return renamed(match, (text) => (names.has(text) ? text.replace(/^\$?/, (sign) => sign + to("")) : text));
  };
}

const renamingBack: Becomes = (match) => renamed(match, (text) => text.replace("uvran_", ""));

function renamed(match: Match, to: (name: string) => string) {
  const { tree, found } = match;
  const kinds = tree.language.variables;
  const edits = match.nodes
    .flatMap((node) => [...node.descendants()])
    .filter((node) => node.isLeaf && node.is(kinds))
    .map(({ start, end, text }) => ({ start, end, text: to(text) }))
    .filter(({ start, end, text }) => text !== tree.text.slice(start, end));
  return [copy(found.start, found.end, edits)];
}
