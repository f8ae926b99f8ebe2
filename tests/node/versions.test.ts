import { mkdirSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { languageOfFile } from "uvran";
import { ProjectTargets } from "uvran/node";
import { SHIPPED } from "uvran/packs";
import { Workspace } from "uvran/workspace";

function project(files: Record<string, string>): string {
  const root = mkdtempSync(join(tmpdir(), "uvran-versions-"));
  for (const [path, text] of Object.entries(files)) {
    mkdirSync(dirname(join(root, path)), { recursive: true });
    writeFileSync(join(root, path), text);
  }
  return root;
}

const engines = (node: string): Record<string, string> => ({
  "package.json": JSON.stringify({ engines: { node } }),
});

test.each<[file: string, files: Record<string, string>, version: string | undefined]>([
  ["a.js", engines(">=12"), "2019"],
  ["a.js", engines("12.x"), "2019"],
  ["a.js", engines("^10.13 || >=14"), "2018"],
  ["a.js", engines("<14"), "2009"],
  ["a.js", engines("<99"), undefined],
  ["a.js", engines("*"), undefined],
  ["a.js", engines("0.10"), "2009"],
  ["a.java", { "pom.xml": "<maven.compiler.source>1.7</maven.compiler.source>" }, "7"],
  ["a.java", { "pom.xml": "<maven.compiler.release>11</maven.compiler.release>" }, "11"],
  ["a.java", { "pom.xml": "<maven.compile.source>1.6</maven.compile.source>" }, "6"],
  [
    "a.java",
    {
      "pom.xml":
        "<jdk>9</jdk><artifactId>maven-compiler-plugin</artifactId><source>${jdk}</source></plugin><source>1.4</source>",
    },
    "9",
  ],
  ["part/a.java", { "part/pom.xml": "<parent/>", "pom.xml": "<java.version>17</java.version>" }, "17"],
  [
    "part/a.java",
    {
      "part/pom.xml": "<parent><relativePath>../base</relativePath></parent>",
      "base/pom.xml": "<maven.compiler.target>8</maven.compiler.target>",
    },
    "8",
  ],
  ["a.java", { "build.gradle": "sourceCompatibility = JavaVersion.VERSION_1_8\n" }, "8"],
  [
    "a.java",
    { "build.gradle.kts": "java { toolchain { languageVersion = JavaLanguageVersion.of(21) } }" },
    "21",
  ],
  ["a.java", { "build.xml": '<javac srcdir="src" source="1.5" target="1.5"/>' }, "5"],
  ["a.cpp", { "CMakeLists.txt": "set(CMAKE_CXX_STANDARD 17)\n" }, "17"],
  ["a.cpp", { "CMakeLists.txt": "set_property(TARGET a PROPERTY CXX_STANDARD 11)\n" }, "11"],
  ["a.cpp", { "CMakeLists.txt": "target_compile_features(a PUBLIC cxx_std_14)\n" }, "14"],
  ["a.cpp", { Makefile: "CXXFLAGS += -std=c++98\nTESTFLAGS = -std=gnu++17\n" }, "3"],
  ["a.cpp", { "configure.ac": "AX_CXX_COMPILE_STDCXX([14], [noext])\n" }, "14"],
  ["a.cs", { "a.csproj": "<TargetFramework>net6.0</TargetFramework>" }, "10"],
  ["a.cs", { "a.csproj": "<TargetFrameworks>net8.0;netstandard2.0</TargetFrameworks>" }, "7.3"],
  ["a.cs", { "a.csproj": "<TargetFrameworkVersion>v4.5</TargetFrameworkVersion>" }, "7.3"],
  ["a.cs", { "a.csproj": "<LangVersion>latest</LangVersion><TargetFramework>net5.0</TargetFramework>" }, "9"],
  ["a.py", { "setup.py": "setup(\n    python_requires='>=3.6',\n)\n" }, "3.6"],
  ["a.py", { "setup.cfg": "[options]\npython_requires = >=3.7, <4\n" }, "3.7"],
  [
    "a.py",
    {
      "setup.py":
        "setup(classifiers=['Programming Language :: Python :: 3.5', 'Programming Language :: Python :: 3.10'])",
    },
    "3.5",
  ],
  ["a.py", { "pyproject.toml": '[project]\nrequires-python = "~=3.8"\n' }, "3.8"],
  ["a.php", { "composer.json": '{"require": {"php": "^7.2 || ^8.0"}}' }, "7.2"],
  ["a.rb", { ".ruby-version": "ruby-2.6.3\n" }, "2.6.3"],
  ["a.rb", {}, undefined],
  ["a.js", { ".nvmrc": "v16.20.0\n" }, "2021"],
  ["a.js", { ".nvmrc": "lts/hydrogen\n" }, "2022"],
  ["a.js", { ".nvmrc": "node\n" }, undefined],
  ["a.js", { "package.json": '{"volta": {"node": "14.17.0"}}' }, "2020"],
  ["a.js", { ".tool-versions": "ruby 3.1.2\nnodejs 20.1.0\n" }, "2023"],
  ["a.ts", { "tsconfig.json": '{"compilerOptions": {"target": "ES2023"}}' }, "2023"],
  // An older target says what is made of the code, and not what the compiler understands.
  ["a.ts", { "tsconfig.json": '{"compilerOptions": {"target": "ES2020"}}' }, undefined],
  ["a.tsx", { "tsconfig.json": '{"compilerOptions": {"target": "ESNext"}}' }, undefined],
  ["a.rb", { ".tool-versions": "ruby 3.1.2\nnodejs 20.1.0\n" }, "3.1.2"],
  ["a.py", { ".tool-versions": "python 3.11.4 2.7.18\n" }, "3.11.4"],
  ["a.py", { ".python-version": "3.8.10\n" }, "3.8.10"],
  ["a.py", { ".python-version": "3.11.4\n3.8.10\n" }, "3.8.10"],
  ["a.py", { Pipfile: '[requires]\npython_version = "3.7"\n' }, "3.7"],
  ["a.java", { ".tool-versions": "java temurin-17.0.8+7\n" }, "17"],
  ["a.java", { ".java-version": "1.8\n" }, "8"],
])("%s beside %j is for %s", (file, files, version) => {
  const targets = new ProjectTargets(project(files));
  const asked = targets.targetOf({ path: file, text: "", language: languageOfFile(file)! });
  expect(asked?.version).toBe(version);
});

const rules = SHIPPED.flatMap((pack) => pack.rules).filter(({ taste }) => !taste);

test.each([
  ["seal.py", "#!/usr/bin/python3.6", "3.6"],
  ["seal", "#! /usr/bin/env -S LANG=C python3.11 -u", "3.11"],
  ["seal.py", "#!/usr/bin/python2", "2.7"],
  ["seal.py", "#!/usr/bin/env python3", "3.9"],
  ["seal.py", "# python3.6", "3.9"],
  ["seal", "#!/usr/bin/php8.2", "8.2"],
  ["seal.rb", "#!/usr/local/bin/ruby3.1", "3.1"],
])("the first line of %s, %s, counts before the manifest", (path, line, version) => {
  const text = `${line}\n`;
  const files = { "pyproject.toml": '[project]\nrequires-python = ">=3.9"', [path]: text };
  const language = languageOfFile(path, text)!;
  expect(new ProjectTargets(project(files)).targetOf({ path, text, language })?.version).toBe(version);
});

test("what a project is too old for is counted, and what nothing says the version of is held back", async () => {
  const root = project({
    ...engines(">=12"),
    "a.js":
      "hive?.open();\nexport const name = (hive) => (hive !== null && hive !== undefined ? hive : 'none');\n",
    "web/a.php": "<?php function f(?Hive $h) { if ($h !== null) { $h->open(); } }\n",
  });
  const { survey } = await new Workspace({ root, rules }).examine();
  expect(survey.changes).toEqual([]);
  expect(survey.silenced.map(({ rule, needs }) => `${rule} ${needs}`)).toEqual([
    "javascript/value-or-fallback JavaScript 2020",
  ]);
  // Somebody may turn `?.` into older syntax, or nobody; what the manifest says counts.
  expect(survey.heldBack[0]!.reason).toContain("nothing says which version the project is for");
  expect(survey.versions).toEqual([
    { version: "JavaScript 2019", says: "by package.json" },
    { version: "PHP 7.4", says: undefined },
  ]);
});

test("what needs an assumed version is likely; the config and newer syntax in the file make it certain", async () => {
  const fallback = "export const name = (hive) => (hive !== null && hive !== undefined ? hive : 'none');\n";
  const root = project({
    "plain.js": fallback,
    "newer.js": `let count;\ncount ??= 1;\n${fallback}`,
    "older.js": `export const cube = (n) => n ** 3;\n${fallback}`,
  });
  const trusts = async (targets: Record<string, string>) => {
    const { survey } = await new Workspace({ root, rules, targets }).examine();
    return Object.fromEntries(
      survey.changes.map(({ path, trust, evidence: [version] }) => [path, [trust, version?.says]]),
    );
  };
  const assumed = "JavaScript 2022 is assumed, since nothing says which version the project is for";
  expect(await trusts({})).toEqual({
    "plain.js": ["likely", assumed],
    "newer.js": ["certain", "the file has `??=`, so it is for JavaScript 2021 or later"],
    "older.js": ["likely", assumed],
  });
  const said = ["certain", "JavaScript 2020 is asked for by the config"];
  expect(await trusts({ javascript: "2020" })).toEqual({
    "plain.js": said,
    "newer.js": said,
    "older.js": said,
  });
});
