import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { findSources, type Check, type ScratchConfig } from "../node/index.js";
import { languageOnDisk } from "../node/file-language.js";
import type { LanguageId } from "../syntax/index.js";

/** A check that a person would write for a project, with what it was seen from. */
export interface Suggestion {
  readonly check: Check;
  readonly because: string;
}

/** Checks for a project, and what its copies need. */
export interface Suggested {
  readonly checks: readonly Suggestion[];
  readonly scratch: ScratchConfig;
}

/** Looks at the manifests of a project, and says what to check it with. Nothing is run. */
export function suggestedChecks(root: string, leaveOut: readonly string[]): Suggested {
  const { paths } = findSources(root, [], root, leaveOut);
  const languages = new Set(
    paths.map((path) => languageOnDisk(join(root, path))?.id).filter((id) => id !== undefined),
  );
  const project = new Manifests(root, paths);
  const ways: readonly [readonly LanguageId[], (project: Manifests) => Suggestion[]][] = [
    [["javascript", "typescript"], scripts],
    [["python"], python],
    [["java"], java],
    [["cpp"], cpp],
    [["csharp"], csharp],
    [["php"], php],
    [["ruby"], ruby],
    [["powershell"], powershell],
  ];
  const found = ways
    .filter(([ids]) => ids.some((id) => languages.has(id)))
    .flatMap(([, way]) => way(project));
  const vendored = found.length > 0 && project.has("vendor") && languages.has("php") ? ["vendor/"] : [];
  return { checks: uniquelyNamed(found), scratch: vendored.length > 0 ? { link: vendored } : {} };
}

class Manifests {
  readonly #entries: readonly string[];

  constructor(
    readonly root: string,
    readonly paths: readonly string[],
  ) {
    this.#entries = readdirSync(root);
  }

  has(path: string): boolean {
    return existsSync(join(this.root, path));
  }

  /** The text of a file; empty where there is none. */
  text(path: string): string {
    try {
      return readFileSync(join(this.root, path), "utf8");
    } catch {
      return "";
    }
  }

  /** The first of these files in the root that is there. */
  first(...names: readonly string[]): string | undefined {
    return names.find((name) => this.has(name));
  }

  /** A file in the root with such a name. */
  like(name: RegExp): string | undefined {
    return this.#entries.find((entry) => name.test(entry));
  }

  /** Is there a source with such a path? */
  source(path: RegExp): string | undefined {
    return this.paths.find((one) => path.test(one));
  }
}

function scripts(project: Manifests): Suggestion[] {
  const out: Suggestion[] = [];
  const manifest = jsonOf(project.text("package.json"));
  const own = (manifest["scripts"] ?? {}) as Record<string, string>;
  const runner = project.has("pnpm-lock.yaml") ? "pnpm" : project.has("yarn.lock") ? "yarn" : "npm";
  const run = (script: string): string => (script === "test" ? `${runner} test` : `${runner} run ${script}`);
  const configs = project.has("tsconfig.json")
    ? ["tsconfig.json"]
    : project.paths
        .map((path) => path.split("/")[0]!)
        .filter((folder, i, all) => all.indexOf(folder) === i && project.has(`${folder}/tsconfig.json`))
        .map((folder) => `${folder}/tsconfig.json`);
  const checksTypes = ["typecheck", "type-check", "check-types", "types"].find((name) => name in own);
  if (checksTypes !== undefined)
    out.push({
      check: { name: "types", run: run(checksTypes), compare: "messages" },
      because: `package.json has a script "${checksTypes}"`,
    });
  else
    for (const config of configs) {
      const folder = config === "tsconfig.json" ? "" : ` -p ${config.split("/")[0]}`;
      out.push({
        check: {
          name: `types${folder.replace(" -p", "")}`,
          run: `tsc${folder} --noEmit`,
          compare: "messages",
        },
        because: `there is a ${config}`,
      });
    }
  const test = own["test"];
  if (test !== undefined && !/no test specified/.test(test))
    out.push({
      check: { name: "tests", run: run("test"), compare: printsResults(test, project) ? "tests" : "exit" },
      because: 'package.json has a script "test"',
    });
  const build = own["build"];
  if (build !== undefined)
    out.push({
      check: { name: "builds", run: run("build"), compare: "exit" },
      because: 'package.json has a script "build"',
    });
  return out;
}

/** Runners whose results are known by what they print. */
const RUNNERS = /\b(?:jest|vitest|mocha|tap|tape|ava)\b|node .*--test|\bpytest\b|unittest/;

function printsResults(script: string, project: Manifests): boolean {
  return (
    RUNNERS.test(script) || (/^npm|^yarn|^pnpm/.test(script) && RUNNERS.test(project.text("package.json")))
  );
}

function python(project: Manifests): Suggestion[] {
  const compiles = {
    name: "Python compiles",
    run: "python3 -m compileall -q -f .",
    compare: "messages",
  } as const;
  const out: Suggestion[] = [{ check: compiles, because: "there is Python code" }];
  const settings = [
    "pyproject.toml",
    "setup.cfg",
    "tox.ini",
    "pytest.ini",
    "requirements.txt",
    "requirements-dev.txt",
    "dev-requirements.txt",
  ];
  const usesPytest =
    project.first("pytest.ini", "conftest.py", "tests/conftest.py") ??
    settings.find((name) => /\bpytest\b/.test(project.text(name)));
  const tests = project.source(/(^|\/)test(s?\/.*|_[^/]*)\.py$|_test\.py$/);
  if (usesPytest !== undefined)
    out.push({
      check: { name: "Python tests", run: "python3 -m pytest -q", compare: "tests" },
      because: `${usesPytest} is for pytest`,
    });
  else if (tests !== undefined)
    out.push({
      check: { name: "Python tests", run: "python3 -m unittest", compare: "tests" },
      because: `${tests} looks like a test`,
    });
  const typed =
    project.first("mypy.ini", ".mypy.ini") ??
    ["pyproject.toml", "setup.cfg"].find((name) => /^\[(?:tool\.)?mypy/m.test(project.text(name)));
  if (typed !== undefined)
    out.push({
      check: { name: "Python types", run: "python3 -m mypy .", compare: "messages" },
      because: `${typed} is for mypy`,
    });
  return out;
}

function java(project: Manifests): Suggestion[] {
  if (project.has("pom.xml")) {
    const run = project.has("mvnw") ? "./mvnw" : "mvn";
    const check = {
      name: "Java tests",
      run: `${run} -B test`,
      compare: ["messages", "tests"],
      results: ["**/surefire-reports/*.xml"],
      keeps: ["target/"],
    } as const;
    return [{ check, because: "there is a pom.xml" }];
  }
  const gradle = project.first("build.gradle", "build.gradle.kts");
  if (gradle !== undefined) {
    const run = project.has("gradlew") ? "./gradlew" : "gradle";
    const check = {
      name: "Java tests",
      run: `${run} test --no-daemon --continue`,
      compare: ["messages", "tests"],
      results: ["**/test-results/**/*.xml"],
      keeps: ["build/", ".gradle/"],
    } as const;
    return [{ check, because: `there is a ${gradle}` }];
  }
  const check = {
    name: "Java compiles",
    run: "mkdir -p .classes && javac -d .classes $(find . -name '*.java')",
    compare: "messages",
  } as const;
  return [{ check, because: "there is Java code, and no build file" }];
}

function cpp(project: Manifests): Suggestion[] {
  if (project.has("CMakeLists.txt")) {
    const build = {
      name: "C++ builds",
      run: "cmake -S . -B .built && cmake --build .built",
      compare: "messages",
      keeps: [".built/"],
    } as const;
    const tests = {
      name: "C++ tests",
      run: "ctest --test-dir .built",
      compare: "tests",
      after: [build.name],
    } as const;
    const hasTests = /enable_testing|add_test|include\s*\(\s*CTest/i.test(project.text("CMakeLists.txt"));
    return [
      { check: build, because: "there is a CMakeLists.txt" },
      ...(hasTests ? [{ check: tests, because: "CMakeLists.txt has tests" }] : []),
    ];
  }
  const makefile = project.first("Makefile", "makefile", "GNUmakefile");
  if (makefile === undefined) return [];
  const target = /^(test|check):/m.exec(project.text(makefile))?.[1];
  return [
    { check: { name: "C++ builds", run: "make", compare: "messages" }, because: `there is a ${makefile}` },
    ...(target === undefined
      ? []
      : [
          {
            check: { name: "C++ tests", run: `make ${target}`, compare: "exit" } as const,
            because: `${makefile} has a target "${target}"`,
          },
        ]),
  ];
}

function csharp(project: Manifests): Suggestion[] {
  const solution = project.like(/\.slnx?$/) ?? project.like(/\.csproj$/);
  if (solution === undefined) return [];
  const build = {
    name: "C# builds",
    run: "dotnet build --nologo",
    compare: "messages",
    keeps: ["bin/", "obj/"],
  } as const;
  const hasTests = project.source(/test[^/]*\.cs$/i) !== undefined;
  const tests = {
    name: "C# tests",
    run: "dotnet test --nologo",
    compare: "tests",
    keeps: ["bin/", "obj/"],
  } as const;
  return [
    { check: build, because: `there is a ${solution}` },
    ...(hasTests ? [{ check: tests, because: "there are files that look like tests" }] : []),
  ];
}

function php(project: Manifests): Suggestion[] {
  const run = "find . -name '*.php' -not -path './vendor/*' -print0 | xargs -0 -n 1 php -l";
  const out: Suggestion[] = [
    { check: { name: "PHP compiles", run, compare: "messages" }, because: "there is PHP code" },
  ];
  const config = project.first("phpunit.xml", "phpunit.xml.dist", "phpunit.dist.xml");
  if (config !== undefined)
    out.push({
      check: {
        name: "PHP tests",
        run: project.has("vendor/bin/phpunit") ? "vendor/bin/phpunit" : "phpunit",
        compare: "tests",
      },
      because: `there is a ${config}`,
    });
  return out;
}

function ruby(project: Manifests): Suggestion[] {
  const run = "find . -name '*.rb' -not -path './vendor/*' -print0 | xargs -0 -n 1 ruby -c";
  const out: Suggestion[] = [
    { check: { name: "Ruby compiles", run, compare: "messages" }, because: "there is Ruby code" },
  ];
  const bundled = project.has("Gemfile") ? "bundle exec " : "";
  const spec = project.first(".rspec") ?? project.source(/(^|\/)spec\/.*_spec\.rb$/);
  if (spec !== undefined)
    out.push({
      check: { name: "Ruby tests", run: `${bundled}rspec`, compare: "tests" },
      because: `${spec} is for rspec`,
    });
  else if (/TestTask|task :test/.test(project.text("Rakefile")))
    out.push({
      check: { name: "Ruby tests", run: `${bundled}rake test`, compare: "tests" },
      because: "Rakefile has a test task",
    });
  return out;
}

function powershell(project: Manifests): Suggestion[] {
  const tests = project.source(/\.Tests\.ps1$/);
  if (tests === undefined) return [];
  const run = 'pwsh -NoProfile -Command "Invoke-Pester -CI"';
  return [
    { check: { name: "PowerShell tests", run, compare: "exit" }, because: `${tests} looks like a test` },
  ];
}

function jsonOf(text: string): Record<string, unknown> {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === "object" && value !== null ? (value as Record<string, unknown>) : {};
  } catch {
    return {};
  }
}

function uniquelyNamed(found: readonly Suggestion[]): Suggestion[] {
  const names = new Set<string>();
  return found.filter(({ check: { name } }) => !names.has(name) && names.add(name));
}

/** The checks as they stand in a config: a whole one, or only the part for one that is there already. */
export function suggestedText({ checks, scratch }: Suggested, isWhole: boolean): string {
  const lines = checks.flatMap(({ check, because }) => [`    // ${because}`, `    ${literal(check)},`]);
  const linked =
    Object.keys(scratch).length > 0
      ? [`  // Read by checks, and not written.`, `  scratch: ${literal(scratch)},`]
      : [];
  const body = ["  checks: [", ...lines, "  ],", ...linked];
  if (!isWhole) return `${body.join("\n")}\n`;
  return [
    'import { defineConfig } from "uvran/node";',
    "",
    "export default defineConfig({",
    ...body,
    "});",
    "",
  ].join("\n");
}

function literal(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(literal).join(", ")}]`;
  if (typeof value !== "object" || value === null) return JSON.stringify(value);
  return `{ ${Object.entries(value)
    .map(([key, inner]) => `${key}: ${literal(inner)}`)
    .join(", ")} }`;
}
