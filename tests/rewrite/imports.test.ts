import "uvran/node";
import {
  cpp,
  csharp,
  Engine,
  holes,
  java,
  javascript,
  need,
  php,
  powershell,
  python,
  rule,
  ruby,
  textAfter,
  typescript,
  type Need,
  type Snippet,
} from "uvran/core";

const { x } = holes({ x: "expression" });

/** A rule that turns one snippet into another and needs something for it. */
function moving(was: Snippet, becomes: Snippet, needs: readonly Need[] = []) {
  const about = { kind: "idiom", title: "Move on", why: "It is old." } as const;
  return rule({ id: "hive/move-on", ...about, was, becomes, needs, trials: [] });
}

async function after(path: string, text: string, made: ReturnType<typeof rule>): Promise<string> {
  const engine = new Engine([made]);
  const result = (await engine.file(path, text))!;
  expect(result.changes.length).toBeGreaterThan(0);
  const now = await textAfter(path, text, result.changes);
  expect((await engine.file(path, now))!.changes).toEqual([]);
  return now;
}

const read = need("node:fs/promises", "readFile");
const reading = moving(javascript`slurp(${x})`, javascript`${read}(${x})`);
const merge = need("hives", "merge");
const merging = moving(python`join(${x})`, python`${merge}(${x})`);
const optional = need("java.util", "Optional");
const wrapping = moving(java`Maybe.of(${x})`, java`${optional}.of(${x})`);
const owning = moving(cpp`adopt(${x})`, cpp`std::unique_ptr<Hive>(${x})`, [need("<memory>")]);
const linq = moving(csharp`Pick(${x})`, csharp`${x}.First()`, [need("System.Linq")]);
const clock = need("App\\Time", "Clock");
const ticking = moving(php`tick(${x})`, php`${clock}::at(${x})`);
const setting = moving(ruby`bag(${x})`, ruby`Set.new(${x})`, [need("set")]);
const piping = moving(powershell`Get-Hive ${x}`, powershell`Get-Box ${x}`, [need("Apiary")]);
const Jar = need("./jar.js", "Jar", { form: "type" });
const typing = moving(typescript`${x} as any`, typescript`${x} as ${Jar}`);

test.each([
  [
    "the first import comes after the directive",
    "a.js",
    reading,
    '"use strict";\n\nslurp(a);\n',
    '"use strict";\n\nimport { readFile } from "node:fs/promises";\n\nreadFile(a);\n',
  ],
  [
    "a licence and a shebang stay first",
    "a.js",
    reading,
    "#!/usr/bin/env node\n/* Free for all. */\n\nslurp(a);\n",
    '#!/usr/bin/env node\n/* Free for all. */\n\nimport { readFile } from "node:fs/promises";\n\nreadFile(a);\n',
  ],
  [
    "a comment about the code stays with the code",
    "a.js",
    reading,
    "// Reads it.\nslurp(a);\n",
    'import { readFile } from "node:fs/promises";\n\n// Reads it.\nreadFile(a);\n',
  ],
  [
    "quotes, semicolons and order are the file's",
    "a.ts",
    reading,
    "import a from 'a'\nimport z from 'z'\n\nslurp(a, z); slurp(z)\n",
    "import a from 'a'\nimport { readFile } from 'node:fs/promises'\nimport z from 'z'\n\nslurp(a, z); readFile(z)\n",
  ],
  [
    "a name is added to the list, in its order",
    "a.js",
    reading,
    'import {open, stat} from "node:fs/promises";\nopen(stat, slurp(a));\n',
    'import {open, readFile, stat} from "node:fs/promises";\nopen(stat, readFile(a));\n',
  ],
  [
    "an alias is used",
    "a.js",
    reading,
    'import { readFile as rf } from "node:fs/promises";\nrf(slurp(a));\n',
    'import { readFile as rf } from "node:fs/promises";\nrf(rf(a));\n',
  ],
  [
    "a module imported whole is used",
    "a.js",
    reading,
    'import * as fs from "node:fs/promises";\nfs.open(slurp(a));\n',
    'import * as fs from "node:fs/promises";\nfs.open(fs.readFile(a));\n',
  ],
  [
    "a name that is taken gets an alias",
    "a.js",
    reading,
    "function readFile() {}\nslurp(a);\n",
    'import { readFile as readFile_2 } from "node:fs/promises";\n\nfunction readFile() {}\nreadFile_2(a);\n',
  ],
  [
    "what is no longer used goes",
    "a.js",
    reading,
    'import { slurp, spit } from "./old.js";\nimport b from "b";\nspit(b, slurp(a));\n',
    'import { spit } from "./old.js";\nimport b from "b";\nimport { readFile } from "node:fs/promises";\nspit(b, readFile(a));\n',
  ],
  [
    "a default stays when the list beside it goes",
    "a.js",
    reading,
    'import old, { slurp } from "./old.js";\n\nold(slurp(a));\n',
    'import old from "./old.js";\nimport { readFile } from "node:fs/promises";\n\nold(readFile(a));\n',
  ],
  [
    "a list stays when the default beside it goes",
    "a.js",
    reading,
    'import slurp, { spit, spat } from "./old.js";\n\nspit(spat, slurp(a));\n',
    'import { spit, spat } from "./old.js";\nimport { readFile } from "node:fs/promises";\n\nspit(spat, readFile(a));\n',
  ],
  [
    "an item in the middle of a list goes",
    "a.py",
    merging,
    "from combs import (\n    frame,\n    join,\n    queen,\n)\nqueen(frame, join(a))\n",
    "from combs import (\n    frame,\n    queen,\n)\nfrom hives import merge\nqueen(frame, merge(a))\n",
  ],
  [
    "the last name of a list goes and another one of its module comes",
    "a.py",
    merging,
    "from hives import frame, join\nframe(join(a))\n",
    "from hives import frame, merge\nframe(merge(a))\n",
  ],
  [
    "a whole import goes with its line",
    "a.js",
    reading,
    'import { slurp } from "./old.js";\n\nimport b from "b";\nb(slurp(a));\n',
    'import b from "b";\nimport { readFile } from "node:fs/promises";\nb(readFile(a));\n',
  ],
  [
    "require is kept to",
    "a.cjs",
    reading,
    'const b = require("b");\nmodule.exports = b(slurp(a));\n',
    'const b = require("b");\nconst { readFile } = require("node:fs/promises");\nmodule.exports = b(readFile(a));\n',
  ],
  [
    "a destructured require takes another name",
    "a.cjs",
    reading,
    'const { open } = require("node:fs/promises");\nopen(slurp(a));\n',
    'const { open, readFile } = require("node:fs/promises");\nopen(readFile(a));\n',
  ],
  [
    "a type is imported as one",
    "a.ts",
    typing,
    'import { fill } from "./jar.js";\n\nfill(a as any);\n',
    'import { fill } from "./jar.js";\nimport type { Jar } from "./jar.js";\n\nfill(a as Jar);\n',
  ],
  [
    "a docstring and __future__ stay first",
    "a.py",
    merging,
    '"""About."""\nfrom __future__ import annotations\n\njoin(a)\n',
    '"""About."""\nfrom __future__ import annotations\n\nfrom hives import merge\n\nmerge(a)\n',
  ],
  [
    "an encoding line stays first",
    "a.py",
    merging,
    "# -*- coding: utf-8 -*-\njoin(a)\n",
    "# -*- coding: utf-8 -*-\n\nfrom hives import merge\n\nmerge(a)\n",
  ],
  [
    "a list in brackets grows by a line",
    "a.py",
    merging,
    "from hives import (\n    frame,\n    queen,\n)\nqueen(frame, join(a))\n",
    "from hives import (\n    frame,\n    merge,\n    queen,\n)\nqueen(frame, merge(a))\n",
  ],
  [
    "a wildcard may leave a name out",
    "a.py",
    merging,
    "from hives import *\nx = join(a)\n",
    "from hives import *\nfrom hives import merge\nx = merge(a)\n",
  ],
  [
    "a module is reached by its name",
    "a.py",
    merging,
    "import hives\nx = join(a)\n",
    "import hives\nx = hives.merge(a)\n",
  ],
  [
    "Java: in the group that is most like it",
    "A.java",
    wrapping,
    "package a;\n\nimport java.util.List;\nimport java.util.Map;\n\nimport org.hive.Maybe;\n\nclass A { List<Map> x = Maybe.of(y); }\n",
    "package a;\n\nimport java.util.List;\nimport java.util.Map;\nimport java.util.Optional;\n\nclass A { List<Map> x = Optional.of(y); }\n",
  ],
  [
    "Java: the first one, after the package",
    "A.java",
    wrapping,
    "/* Free. */\npackage a;\n\nclass A { Object x = Maybe.of(y); }\n",
    "/* Free. */\npackage a;\n\nimport java.util.Optional;\n\nclass A { Object x = Optional.of(y); }\n",
  ],
  [
    "Java: a wildcard has it already",
    "A.java",
    wrapping,
    "import java.util.*;\n\nclass A { Object x = Maybe.of(y); }\n",
    "import java.util.*;\n\nclass A { Object x = Optional.of(y); }\n",
  ],
  [
    "Java: a name that is taken is written in full",
    "A.java",
    wrapping,
    "class Optional { Object x = Maybe.of(y); }\n",
    "class Optional { Object x = java.util.Optional.of(y); }\n",
  ],
  [
    "C++: among those in angle brackets, within the guard",
    "a.hpp",
    owning,
    '#ifndef A_H\n#define A_H\n#include <map>\n#include <vector>\n\n#include "a.h"\n\nauto x = adopt(y);\n#endif\n',
    '#ifndef A_H\n#define A_H\n#include <map>\n#include <memory>\n#include <vector>\n\n#include "a.h"\n\nauto x = std::unique_ptr<Hive>(y);\n#endif\n',
  ],
  [
    "C++: the first one, after pragma once",
    "a.hpp",
    owning,
    "// Free.\n#pragma once\n\nauto x = adopt(y);\n",
    "// Free.\n#pragma once\n\n#include <memory>\n\nauto x = std::unique_ptr<Hive>(y);\n",
  ],
  [
    "C#: among the others",
    "A.cs",
    linq,
    "using System;\nusing Hives;\n\nclass A { int x = Pick(y); }\n",
    "using System;\nusing Hives;\nusing System.Linq;\n\nclass A { int x = y.First(); }\n",
  ],
  [
    "PHP: after the namespace",
    "a.php",
    ticking,
    "<?php\n\ndeclare(strict_types=1);\n\nnamespace App;\n\ntick($a);\n",
    "<?php\n\ndeclare(strict_types=1);\n\nnamespace App;\n\nuse App\\Time\\Clock;\n\nClock::at($a);\n",
  ],
  [
    "PHP: a group takes it",
    "a.php",
    ticking,
    "<?php\nuse App\\Time\\{Date, Zone};\nnew Date(Zone::X, tick($a));\n",
    "<?php\nuse App\\Time\\{Clock, Date, Zone};\nnew Date(Zone::X, Clock::at($a));\n",
  ],
  [
    "Ruby: with the file's quotes, after the magic comment",
    "a.rb",
    setting,
    "# frozen_string_literal: true\n\nrequire 'json'\n\nx = bag(y)\n",
    "# frozen_string_literal: true\n\nrequire 'json'\nrequire 'set'\n\nx = Set.new(y)\n",
  ],
  [
    "PowerShell: in the file's own way",
    "a.ps1",
    piping,
    "Import-Module Wax\n\nGet-Hive $a\n",
    "Import-Module Apiary\nImport-Module Wax\n\nGet-Box $a\n",
  ],
  [
    "line ends and byte-order mark are the file's",
    "a.py",
    merging,
    "\uFEFFimport sys\r\nx = join(sys)\r\n",
    "\uFEFFfrom hives import merge\r\nimport sys\r\nx = merge(sys)\r\n",
  ],
] as const)("%s", async (_, path, made, was, now) => {
  expect(await after(path, was, made)).toBe(now);
});

test("a package's own file keeps what others may import from it", async () => {
  const code = "from hives.old import join\n\nx = join(a)\n";
  expect(await after("hives/__init__.py", code, merging)).toBe(
    "from hives import merge\nfrom hives.old import join\n\nx = merge(a)\n",
  );
});

test("only what the kept changes need is imported", async () => {
  const engine = new Engine([reading]);
  const code = "slurp(a);\nslurp(b);\n";
  const { changes } = (await engine.file("a.js", code))!;
  expect(await textAfter("a.js", code, [])).toBe(code);
  expect(await textAfter("a.js", code, changes.slice(1))).toBe(
    'import { readFile } from "node:fs/promises";\n\nslurp(a);\nreadFile(b);\n',
  );
});
