import {
  condition,
  copy,
  declarationOfHole,
  everyUseOf,
  functionAround,
  holes,
  isBuiltin,
  need,
  no,
  originOf,
  python,
  rule,
  text,
  trialsIn,
  typeOf,
  unknown,
  use,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode, UseClause } from "../../../core.js";

const { path, parts, rest, other, mode } = holes({
  path: { kind: "name", node: "identifier" },
  parts: "arguments",
  rest: "arguments",
  other: "expression",
  mode: "expression",
});

import { isPath } from "./path-object.js";

const join = need("os.path", "join");
const Path = need("pathlib", "Path");

/** Questions about a path, and what a path object calls them. */
const ASKED: Readonly<Record<string, string>> = {
  exists: "exists()",
  isfile: "is_file()",
  isdir: "is_dir()",
  islink: "is_symlink()",
  getsize: "stat().st_size",
  getmtime: "stat().st_mtime",
  basename: "name",
};
/** What is done with a file by its path. */
const DONE: Readonly<Record<string, string>> = {
  remove: "unlink()",
  unlink: "unlink()",
  rmdir: "rmdir()",
  mkdir: "mkdir()",
  makedirs: "mkdir(parents=True)",
  stat: "stat()",
};
/** What takes a path object as well as a string, and gives the same. */
const TAKES: Readonly<Record<string, string>> = {
  os: "listdir walk chmod chown utime access scandir symlink link readlink chdir open truncate",
  "os.path": "join dirname splitext split abspath normpath realpath relpath expanduser samefile",
  shutil: "rmtree copyfile copymode copystat copytree disk_usage",
  zipfile: "ZipFile is_zipfile",
  tarfile: "open is_tarfile",
  sqlite3: "connect",
  gzip: "open",
  bz2: "open",
  lzma: "open",
  io: "open",
  logging: "FileHandler",
};
const TAKERS = new Set(
  Object.entries(TAKES).flatMap(([module, names]) => names.split(" ").map((name) => `${module}.${name}`)),
);

/** Is it an argument of something that takes path objects? */
function isTaken({ node }: Match): boolean {
  const call = node.parent?.parent;
  const from = call?.is("call") ? originOf(call.child("function")!) : undefined;
  return from !== undefined && TAKERS.has(`${from.module}.${from.name ?? ""}`);
}

const calls: UseClause[] = [
  // A path object has no such arguments, and the function takes it as well.
  use(python.expression`open(${path}, ${rest})`)
    .when((match) => /\b(opener|closefd)\s*=/.test(match.textOf(rest)))
    .stays(),
  ...Object.entries(ASKED).map(([name, now]) =>
    use(python.expression`${need("os.path", name)}(${path})`).becomes((match) => member(match, now)),
  ),
  ...Object.entries(DONE).map(([name, now]) =>
    use(python.expression`${need("os", name)}(${path})`).becomes((match) => member(match, now)),
  ),
  use(python.expression`${need("os", "makedirs")}(${path}, exist_ok=${mode})`).becomes(
    python.expression`${path}.mkdir(parents=True, exist_ok=${mode})`,
  ),
  ...["rename", "replace"].map((name) =>
    use(python.expression`${need("os", name)}(${path}, ${other})`)
      .as("statement")
      .becomes((match) => [
        ...member(match, `${name}(`),
        copy(match.the(other).start, match.the(other).end),
        text(")"),
      ]),
  ),
  use(python.expression`open(${path}, ${rest})`)
    .when(
      (match) =>
        isBuiltin("open", match.node).is === "yes" && !/\b(opener|closefd)\s*=/.test(match.textOf(rest)),
    )
    .becomes(python.expression`${path}.open(${rest})`),
  use(python`${path}`)
    .as("argument")
    .when(isTaken)
    .stays(),
  use(python.expression`str(${path})`).stays(),
  use(python.expression`print(${rest}, ${path})`).stays(),
];

function member(match: Match, now: string): Segment[] {
  return [copy(match.the(path).start, match.the(path).end), text(`.${now}`)];
}

const inText = use(python`${path}`)
  .in("interpolation")
  .stays();

/** Is it a variable of a function, and no parameter? */
function isLocal(match: Match): boolean {
  const to = declarationOfHole(match, path);
  return to !== undefined && to.as !== "parameter" && functionAround(match.node)?.same(to.scope) === true;
}

/** What is joined: one by one, none of them unpacked. */
const joined = (match: Match): SyntaxNode[] =>
  match.all(parts).filter(({ named, kind }) => named && kind !== "comment");

/** Operands of `/` need no parentheses when they are this simple. */
const SIMPLE = [
  "identifier",
  "attribute",
  "subscript",
  "call",
  "string",
  "parenthesized_expression",
  "concatenated_string",
];

function slashed(match: Match): Segment[] {
  const [first, ...others] = joined(match);
  const inner = others.flatMap((node) => {
    const needs = !node.is(SIMPLE);
    return [text(needs ? " / (" : " / "), copy(node.start, node.end), text(needs ? ")" : "")];
  });
  const isOne = isPath(first!);
  return [
    copy(match.node.start, match.the(path).end),
    text(isOne ? " = " : ` = ${match.nameOf(Path)}(`),
    copy(first!.start, first!.end),
    text(isOne ? "" : ")"),
    ...inner,
  ];
}

/** A path object leaves out what a string keeps: `./`, two slashes, a slash at the end. */
function isTidy(match: Match): Answer {
  const list = joined(match);
  const open = list.find((node) => !node.is("string") && typeOf(node)?.name !== "str");
  if (open)
    return unknown(
      "value.kind",
      `\`${open.text}\` could be of bytes, or written so that the path would be tidied up`,
      open,
    );
  const untidy = list.find(
    (node) => node.is("string") && /(^|\/)\.?\/|\/$|^["']["']$/.test(node.text.slice(1, -1)),
  );
  return untidy
    ? unknown("value.result", `\`${untidy.text}\` would be tidied up`, untidy)
    : unknown(
        "value.result",
        "where the path is printed, a part that is written with `./` or `//` is tidied up",
        list[0],
      );
}

const { rewrites, holds, ignores } = trialsIn("python");

export const pathValue = rule({
  id: "python/path-value",
  kind: "idiom",
  title: "Keep a path as a path object",
  why: "A path in a string says nothing of being one, and every question about it is a function of another module.",
  was: python`${path} = ${join}(${parts})`,
  where: [
    (match) => joined(match).length > 1,
    // A parameter is given by callers, and a name of the module is used by other files.
    isLocal,
  ],
  target: "3.4",
  given: [
    condition("the parts are listed", (match) => {
      const splat = joined(match).find((node) =>
        node.is(["list_splat", "keyword_argument", "dictionary_splat"]),
      );
      return splat
        ? no("form.fits", `how many parts \`${splat.text}\` has is not seen here`, splat)
        : yes("form.fits", "the parts are listed");
    }),
    condition("the path is written as a path object writes it", isTidy),
  ],
  uses: everyUseOf(path, [...calls, inText]),
  becomes: slashed,
  trials: [
    rewrites(
      `
      import os

      def read(folder, name):
          path = os.path.join(folder, name + ".txt")
          if not os.path.exists(path):
              return None
          with open(path, encoding="utf-8") as file:
              text = file.read()
          print(f"{path}: {len(text)}")
          os.remove(path)
          return text
      `,
      `
      from pathlib import Path

      def read(folder, name):
          path = Path(folder) / (name + ".txt")
          if not path.exists():
              return None
          with path.open(encoding="utf-8") as file:
              text = file.read()
          print(f"{path}: {len(text)}")
          path.unlink()
          return text
      `,
      "likely",
    ),
    rewrites(
      `
      from os import makedirs, path as p
      import os

      def make(root: str):
          folder = p.join(root, "hives", "north")
          makedirs(folder, exist_ok=True)
          size = p.getsize(folder)
          return os.listdir(folder), size, p.basename(folder)
      `,
      `
      import os
      from pathlib import Path

      def make(root: str):
          folder = Path(root) / "hives" / "north"
          folder.mkdir(parents=True, exist_ok=True)
          size = folder.stat().st_size
          return os.listdir(folder), size, folder.name
      `,
      "likely",
    ),
    rewrites(
      "import os\ndef f(a, b):\n    c = os.path.join(a, 'x')\n    os.rename(c, b)\n",
      "from pathlib import Path\ndef f(a, b):\n    c = Path(a) / 'x'\n    c.rename(b)\n",
      "likely",
    ),
    rewrites(
      "import os\nimport shutil\ndef f(a):\n    b = os.path.join(a, 'x')\n    c = os.path.join(b, 'y')\n    shutil.copyfile(a, c)\n    os.mkdir(b)\n    return os.path.dirname(c)\n",
      "import os\nfrom pathlib import Path\nimport shutil\ndef f(a):\n    b = Path(a) / 'x'\n    c = Path(b) / 'y'\n    shutil.copyfile(a, c)\n    b.mkdir()\n    return os.path.dirname(c)\n",
      "likely",
    ),
    rewrites(
      "import os\ndef f(a, o):\n    c = os.path.join(a, 'x')\n    open(c, opener=o)\n",
      "from pathlib import Path\ndef f(a, o):\n    c = Path(a) / 'x'\n    open(c, opener=o)\n",
      "likely",
    ),
    ignores("import os\ndef f(a):\n    global c\n    c = os.path.join(a, 'x')\n    os.remove(c)\n"),
    holds("import os\ndef f(a):\n    c = os.path.join(a, 'x')\n    return c\n", "does not know"),
    holds("import os\ndef f(a):\n    c = os.path.join(a, 'x')\n    g(c)\n", "does not know"),
    holds("import os\ndef f(a):\n    c = os.path.join(a, 'x')\n    os.remove(c + '.old')\n", "does not know"),
    holds(
      "import os\ndef f(a):\n    c = os.path.join(a, 'x')\n    if c == 'x':\n        os.remove(c)\n",
      "does not know",
    ),
    holds(
      "import os\ndef f(a):\n    c = os.path.join(a, 'x')\n    if a:\n        c = a\n    os.remove(c)\n",
      "does not know",
    ),
    holds("import os\ndef f(a):\n    c = os.path.join('x', *a)\n    os.remove(c)\n", "how many parts"),
    holds("import os\ndef f(a, open):\n    c = os.path.join(a, 'x')\n    open(c)\n", "does not know"),
    ignores("import os\ndef f(a):\n    c = os.path.join(a)\n    os.remove(c)\n"),
    ignores("from a import path\ndef f(b):\n    c = path.join(b, 'x')\n    open(c)\n"),
  ],
});
