import { trialsIn } from "../../../core.js";
import type { Trial } from "../../../core.js";

const js = trialsIn("javascript");

const OLD = '{\n  "name": "hives",\n  "main": "trial.js",\n  "private": true\n}\n';
const NEW = '{\n  "name": "hives",\n  "type": "module",\n  "main": "trial.js",\n  "private": true\n}\n';
/** A package that is installed, and of which `import` gives what `require` does. */
const PLAIN = {
  "node_modules/scales/package.json": ['{ "main": "index.js" }', '{ "main": "index.js" }'],
} as const;

type Beside = Readonly<Record<string, string | readonly [was: string, now: string]>>;

/** A file that leads its package, the files beside it, and what becomes of them. */
function moves(
  was: string,
  now: string,
  beside: Beside = {},
  trust: "likely" | "possible" = "likely",
): Trial {
  const pairs = Object.entries(beside).map(
    ([path, text]) => [path, typeof text === "string" ? [text, text] : text] as const,
  );
  return js.rewrites(was, now, trust, { "package.json": [OLD, NEW], ...PLAIN, ...Object.fromEntries(pairs) });
}

/** A package that stays as it is. */
function stays(was: string, because: string, beside: Readonly<Record<string, string>> = {}): Trial {
  const files = Object.entries({ "package.json": OLD, ...beside });
  return {
    ...js.holds(was, because),
    beside: Object.fromEntries(files.map(([path, text]) => [path, [text, text] as const])),
  };
}

const LOADS_JAR = "const { weigh } = require('./jar');\nmodule.exports = () => weigh();";
const JAR = "exports.weigh = () => 1;";

export const trials: readonly Trial[] = [
  moves(
    `
    'use strict';

    const fs = require('fs');
    const { weigh, seal: close } = require('./jar');
    const yard = require('./yard');

    module.exports = function report(path) {
      return close(weigh(fs.readFileSync(path)), yard.hives);
    };
    `,
    `
    import fs from 'fs';
    import { weigh, seal as close } from './jar.js';
    import * as yard from './yard/index.js';

    export default function report(path) {
      return close(weigh(fs.readFileSync(path)), yard.hives);
    }
    `,
    {
      "jar.js": [
        `
        function weigh(jar) { return jar.length; }
        const seal = (weight, hives) => weight * hives;
        module.exports = { weigh, seal };
        `,
        `
        function weigh(jar) { return jar.length; }
        const seal = (weight, hives) => weight * hives;
        export { weigh, seal };
        `,
      ],
      "yard/index.js": [
        `
        exports.hives = 3;
        exports.count = function () { return exports.hives; };
        `,
        `
        export const hives = 3;
        export function count() { return hives; }
        `,
      ],
    },
  ),
  // Several in one declaration; comments stay; what is no module is loaded as before, and the paths of the file are worked out.
  moves(
    `
    var scales = require('scales'), // kilograms
        path = require('path'),
        limit = 3,
        names = require('./names.json');
    var join = require('path').join;
    var { heavy = limit } = require('scales');

    exports.file = join(__dirname, path.basename(__filename));
    exports.all = function () { return scales(names, heavy); };
    if (require.main === module) exports.all();
    if (!module.parent) exports.all();
    `,
    `
    import { createRequire } from 'module';
    import { dirname } from 'path';
    import { fileURLToPath } from 'url';
    const require = createRequire(import.meta.url);
    const __filename = fileURLToPath(import.meta.url);
    const __dirname = dirname(__filename);
    import scales from 'scales'; // kilograms
    import path from 'path';
    var limit = 3,
        names = require('./names.json');
    import { join } from 'path';
    import scalesModule from 'scales';
    var { heavy = limit } = scalesModule;

    export const file = join(__dirname, path.basename(__filename));
    export function all() { return scales(names, heavy); }
    if (process.argv[1] === fileURLToPath(import.meta.url)) all();
    if (process.argv[1] === fileURLToPath(import.meta.url)) all();
    `,
  ),
  // What is loaded within an expression, within a function, and passed on; a name that means something else in the function.
  moves(
    `
    const { log } = require('./tools/log')('hives');
    const Jar = exports.Jar = class { };
    exports.weigh = exports.scale = (jar) => log(jar);
    exports.yard = require('./yard');
    exports.later = () => require('./tools/late').run();
    exports.fetch = (place) => fetch(place);
    `,
    `
    import * as late from './tools/late.js';
    import logModule from './tools/log.js';
    const { log } = logModule('hives');
    export const Jar = class { };
    export const scale = (jar) => log(jar);
    export { scale as weigh };
    export { default as yard } from './yard.js';
    export const later = () => late.run();
    const exportedFetch = (place) => fetch(place);
    export { exportedFetch as fetch };
    `,
    {
      "tools/log.js": [
        "module.exports = function (name) { return { log: console.log }; };",
        "export default function (name) { return { log: console.log }; }",
      ],
      "tools/late.js": ["exports.run = async function () { };", "export async function run() { }"],
      "yard.js": [
        "module.exports = new Map();\nmodule.exports.hives = 3;",
        "const yard = new Map();\nexport default yard;\nyard.hives = 3;",
      ],
    },
  ),
  // An object that is filled in more ways than a module can say stays one, and so does what is used as one.
  moves(
    `
    const yard = require('./yard');
    const jars = require('./jars');
    for (const name of yard.names) exports[name] = jars[name];
    Object.freeze(exports);
    `,
    `
    import yard from './yard.js';
    import jars from './jars.js';
    const trial = {};
    for (const name of yard.names) trial[name] = jars[name];
    Object.freeze(trial);

    export default trial;
    `,
    {
      "yard.js": [
        "if (process.env.HIVES) module.exports = { names: [] };\nelse module.exports = { names: ['a'] };",
        "let yard = {};\nif (process.env.HIVES) yard = { names: [] };\nelse yard = { names: ['a'] };\n\nexport default yard;",
      ],
      "jars.js": [
        "const seal = 1;\nmodule.exports = { seal };\n",
        "const seal = 1;\nexport default { seal };\n",
      ],
    },
  ),
  // Files that load each other only for later, and an index of files.
  moves(
    `
    module.exports = {
      jar: require('./jar'),
      yard: require('./yard').yard,
    };
    `,
    `
    import jar from './jar.js';
    import * as yard from './yard.js';
    export default {
      jar,
      yard: yard.yard,
    };
    `,
    {
      "jar.js": [
        "const { yard } = require('./yard');\nmodule.exports = () => yard;",
        "import { yard } from './yard.js';\nexport default () => yard;",
      ],
      "yard.js": [
        "const jar = require('./jar');\nexports.yard = () => jar();",
        "import jar from './jar.js';\nexport const yard = () => jar();",
      ],
    },
    "possible",
  ),
  // A file within a function that is called at once.
  moves(
    `
    (function () {
      'use strict';
      var scales = require('scales');
      var jar = require('./jar');
      function weigh() { return scales(jar.weigh()); }
      module.exports = weigh;
    }());
    `,
    `
    import scalesModule from 'scales';
    import * as jarModule from './jar.js';
    let trial = {};
    (function () {
      'use strict';
      var scales = scalesModule;
      var jar = jarModule;
      function weigh() { return scales(jar.weigh()); }
      trial = weigh;
    }());

    export default trial;
    `,
    { "jar.js": ["exports.weigh = () => 1;", "export const weigh = () => 1;"] },
  ),
  // What the file imports already is used; `buffer/` is a package, and no module of Node.
  moves(
    `
    const { dirname, join } = require('path');
    const { Buffer } = require('buffer/');
    exports.folder = join(dirname(__dirname), Buffer.name);
    `,
    `
    import { createRequire } from 'module';
    import { fileURLToPath } from 'url';
    import { dirname, join } from 'path';
    const require = createRequire(import.meta.url);
    const __dirname = dirname(fileURLToPath(import.meta.url));
    const { Buffer } = require('buffer/');
    export const folder = join(dirname(__dirname), Buffer.name);
    `,
  ),
  // A script that pages load stays strict; a text that comes later is no directive.
  moves(
    `
    /* the yard
       of the north */ const fs = require('fs');
    'use strict';
    exports.yard = fs.readFileSync(__filename);
    `,
    `
    /* the yard
       of the north */ import { fileURLToPath } from 'url';
    import fs from 'fs';
    const __filename = fileURLToPath(import.meta.url);
    'use strict';
    export const yard = fs.readFileSync(__filename);
    `,
    { "public/page.js": "'use strict';\nvar shown = true;" },
  ),
  // What is still loaded by a call is loaded after the imports.
  moves(
    `
    const both = require('both');
    const jar = require('./jar');
    exports.weigh = () => both(jar.weigh());
    `,
    `
    import { createRequire } from 'module';
    const require = createRequire(import.meta.url);
    const both = require('both');
    import * as jar from './jar.js';
    export const weigh = () => both(jar.weigh());
    `,
    {
      "node_modules/both/package.json": '{ "exports": { "import": "./b.mjs", "default": "./b.js" } }',
      "jar.js": ["exports.weigh = () => 1;", "export const weigh = () => 1;"],
    },
  ),
  stays(
    "const names = ['./jar'];\nnames.forEach((name) => require(name));",
    "which file of the package is loaded",
  ),
  stays("let jar;\ntry { jar = require('./jar'); } catch { }", "loaded only when it is needed", {
    "jar.js": JAR,
  }),
  stays("delete require.cache[0];\nrequire('fs');", "`require.cache` is not there"),
  stays("if (module.parent) require('fs');", "`module.parent` is not there"),
  stays("const load = require;\nload('fs');", "used as a value"),
  stays(
    "process.env.YARD = 'north';\nconst jar = require('./jar');\njar.weigh();",
    "before modules are loaded",
    { "jar.js": JAR },
  ),
  stays("exports = { weigh: 1 };", "exports nothing"),
  stays("module.exports = 1;\nexports.weigh = 2;", "another object"),
  stays("exports.weigh = 1;\nthis.seal = 2;", "at the top of the file"),
  stays("exports.weigh = 1;\nreturn;", "cannot return"),
  stays("total = 1;\nexports.weigh = () => total;", "`total` is declared nowhere"),
  stays("exports.weigh = 010;", "strict code does not allow this"),
  stays("exports.weigh = function (jar) { jar = jar || 1; return arguments[0]; };", "`arguments` follows it"),
  stays("if (typeof module !== 'undefined') module.exports = 1;", "asks what loads it"),
  stays(
    "Object.defineProperty(exports, '__esModule', { value: true });\nexports.weigh = 1;",
    "what a compiler has written",
  ),
  // A name that is not exported, or is set from outside; one that a variable cannot have.
  moves(
    `
    const { gone } = require('./jar');
    const yard = require('./yard');
    yard.hives = gone || 2;
    exports.delete = () => yard.hives;
    `,
    `
    import jar from './jar.js';
    const { gone } = jar;
    import yard from './yard.js';
    const trial = {};
    yard.hives = gone || 2;
    trial.delete = () => yard.hives;

    export default trial;
    `,
    {
      "jar.js": [JAR, "const jar = {};\njar.weigh = () => 1;\n\nexport default jar;"],
      "yard.js": ["exports.hives = 1;", "const yard = {};\nyard.hives = 1;\n\nexport default yard;"],
    },
  ),
  stays("const jar = require('./jar');\nconsole.log(jar);", "exports nothing", {
    "jar.js": "console.log(1);",
  }),
  stays("exports.weigh = require('./gone');", "no source of the project"),
  stays("const { Jar } = require('./jar');\nexports.Hive = class extends Jar { };", "load each other", {
    "jar.js": "const { Hive } = require('./trial');\nexports.Jar = class { hive() { return Hive; } };",
  }),
  stays(LOADS_JAR, "replaces modules", {
    "jar.js": JAR,
    "jar.test.js": "jest.mock('./jar');\nrequire('./jar');",
  }),
  stays(LOADS_JAR, "modules are replaced", {
    "jar.js": JAR,
    "test.js": "const load = require('proxyquire');\nload('./jar', {});",
  }),
  stays(LOADS_JAR, "stays CommonJS", { "jar.js": JAR, "tool.cjs": "require('./jar');" }),
  stays(LOADS_JAR, "is TypeScript", { "jar.js": JAR, "tool.ts": "import jar = require('./jar');" }),
  stays(LOADS_JAR, "turns this module into something else", { "jar.js": JAR, "page.js": "import './jar';" }),
  stays(LOADS_JAR, "loaded by a tool", { "jar.js": JAR, ".toolrc.js": "module.exports = { };" }),
  moves("exports.weigh = () => 1;", "export const weigh = () => 1;", {
    "bin/hives": [
      "#!/usr/bin/env node\nconst { weigh } = require('../trial');\n\nconsole.log(weigh());",
      "#!/usr/bin/env node\nimport { weigh } from '../trial.js';\n\nconsole.log(weigh());",
    ],
    "bin/seal": "#!/bin/sh\nnode -e \"require('./trial')\"",
  }),
  // A program that is built somewhere else is a doubt.
  moves("exports.weigh = () => 1;", "export const weigh = () => 1;", {
    "package.json": [
      '{ "main": "trial.js", "private": true, "bin": "out/hives.js" }',
      '{"type": "module", "main": "trial.js", "private": true, "bin": "out/hives.js" }',
    ],
  }),
  stays(LOADS_JAR, "is no source of the project", {
    "jar.js": JAR,
    "package.json": '{ "main": "trial.js", "bin": "bin/hives" }',
    "bin/hives": "#!/bin/sh\nexec node trial.js",
  }),
  stays(LOADS_JAR, "for its ending", {
    "jar.js": JAR,
    "hives.cgi": "#!/usr/bin/env node\nrequire('./trial');",
  }),
  stays(LOADS_JAR, "the package is for `>=16`", {
    "jar.js": JAR,
    "package.json": '{ "main": "trial.js", "bin": "bin/hives", "engines": { "node": ">=16" } }',
    "bin/hives": "#!/usr/bin/env node\nrequire('../trial');",
  }),
  stays(LOADS_JAR, "says what `require` loads", {
    "jar.js": JAR,
    "package.json": '{ "main": "trial.js", "exports": { "require": "./trial.js" } }',
  }),
  stays(LOADS_JAR, "outside of the package", {
    "jar.js": JAR,
    "package.json": '{ "main": "trial.js" }',
    "sub/package.json": "{ }",
    "sub/tool.js": "require('../jar');",
  }),
  stays(LOADS_JAR, "loads the package with `require`", {
    "jar.js": JAR,
    "sub/package.json": "{ }",
    "sub/tool.js": "require('hives');",
  }),
  stays("import('./jar.js').then((jar) => jar.default.weigh());\nexports.a = 1;", "exports in another way", {
    "jar.js": JAR,
  }),
  stays(LOADS_JAR, "exports in another way", {
    "jar.js": JAR,
    "tool.mjs": "import jar from './jar.js';\njar.weigh();",
  }),
];
