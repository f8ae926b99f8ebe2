import { Sandbox } from "./run.js";

const SCRIPTS = {
  "bin/jars": "#!/usr/bin/env python3\nf = open('jars')\ntext = f.read()\nf.close()\n",
  "bin/hive":
    "#!/usr/bin/env -S node --no-warnings\nconst n = process.argv[2];\nf(n !== null && n !== undefined ? n : 0);\n",
  "bin/queens": "#! /usr/bin/ruby3.1\ndef f(list)\n  list.nil? ? nil : list.size\nend\n",
  "bin/lots8.2": '#!/usr/bin/php8.2\n<?php\necho isset($argv[1]) ? $argv[1] : "all";\n',
  "bin/scales": "#!/usr/bin/env pwsh\n$all = @()\nforeach ($x in 1..3) { $all += $x }\n$all\n",
  Rakefile: "def f(list)\n  list.nil? ? nil : list.size\nend\n",
};

test("scripts without an ending are read by their first line, and known files by their name", () => {
  const project = new Sandbox({
    ...SCRIPTS,
    "bin/start": "#!/bin/sh\nexec bin/jars\n",
    LICENSE: "Take it.\n",
  });
  const { out } = project.uvran("survey", "--json");
  const { places, notCovered } = JSON.parse(out) as {
    places: { path: string }[];
    notCovered: unknown;
  };
  expect([...new Set(places.map(({ path }) => path))].sort()).toEqual(Object.keys(SCRIPTS).sort());
  expect(JSON.stringify(notCovered)).toContain("start");
  project.uvran("propose");
  expect(project.uvran("apply", "--trust", "possible").out).toContain("6 files");
  expect(project.read("bin/lots8.2")).toBe('#!/usr/bin/php8.2\n<?php\necho $argv[1] ?? "all";\n');
  expect(project.uvran("undo").out).toContain("6 files as before");
});

test("the first line of a file says for which version it is", () => {
  const text = 'name = "hive"\nprint("%s" % name)\n';
  const project = new Sandbox({
    "old.py": `#!/usr/bin/python2\n${text}`,
    "new.py": `#!/usr/bin/python3.9\n${text}`,
  });
  const { out } = project.uvran("propose", "--trust", "possible", "--rule", "python/percent-format");
  expect(out).toContain("new.py");
  expect(out).not.toContain("old.py");
});

test("a script that uses a function is changed with it", () => {
  const project = new Sandbox({
    "uvran.config.json": '{ "rules": { "python/snake-case": true } }',
    "yard.py": "def countHives(yard):\n    return len(yard)\n",
    "bin/yard": "#!/usr/bin/env python3\nfrom yard import countHives\nprint(countHives([]))\n",
  });
  project.uvran("propose");
  expect(project.uvran("apply", "--trust", "possible").out).toContain("2 files");
  expect(project.read("bin/yard")).toContain("print(count_hives([]))");
});

test("a manifest that is code counts when it changes", () => {
  const gemspec = (version: string): string =>
    `Gem::Specification.new { |s| s.required_ruby_version = "${version}" }\n`;
  const project = new Sandbox({
    "a.gemspec": gemspec(">= 3.1"),
    "a.rb": "def f(list)\n  list.nil? ? nil : list.size\nend\n",
  });
  const found = (): string => project.uvran("propose").out;
  expect(found()).toContain("a.rb");
  project.write("a.gemspec", gemspec(">= 2.0"));
  expect(found()).not.toContain("a.rb:2");
});
