import { mkdirSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { ProductVersions } from "uvran/node";

type Language = ConstructorParameters<typeof ProductVersions>[2];

const CASES: [
  file: string,
  text: string,
  language: Language,
  version: string | undefined,
  product?: string,
][] = [
  ["package.json", '{"dependencies":{"combwork":"^2.1.0"}}', "javascript", "2.1.0"],
  ["package.json", '{"devDependencies":{"combwork":">=3 <4"}}', "typescript", "3.0.0"],
  ["package.json", '{"dependencies":{"combwork-tools":"^2.1.0"}}', "javascript", undefined],
  ["package-lock.json", '{"packages":{"node_modules/combwork":{"version":"2.4.1"}}}', "javascript", "2.4.1"],
  [
    "package-lock.json",
    '{"packages":{"node_modules/@bee/comb":{"version":"2.4.1"}}}',
    "javascript",
    "2.4.1",
    "@bee/comb",
  ],
  ["yarn.lock", 'combwork@^2.0.0:\n  version "2.3.4"\n', "javascript", "2.3.4"],
  ["yarn.lock", '"@bee/comb@npm:^2.0.0":\n  version: 2.3.4\n', "javascript", "2.3.4", "@bee/comb"],
  ["pnpm-lock.yaml", "packages:\n\n  combwork@2.3.4:\n    resolution: {}\n", "javascript", "2.3.4"],
  ["requirements.txt", "# pinned\ncombwork==1.4.2  # for now\nother>=3\n", "python", "1.4.2"],
  ["requirements-dev.txt", "comb-work[all]>=1.4,<2\n", "python", "1.4.0", "Comb_Work"],
  ["pyproject.toml", '[project]\ndependencies = ["combwork >=1.4"]\n', "python", "1.4.0"],
  ["pyproject.toml", '[tool.poetry.dependencies]\ncombwork = "^1.4"\n', "python", "1.4.0"],
  [
    "pyproject.toml",
    '[tool.poetry.dependencies]\ncombwork = { version = "~1.4", extras = [] }\n',
    "python",
    "1.4.0",
  ],
  ["setup.py", "setup(install_requires=['combwork>=1.4'])\n", "python", "1.4.0"],
  ["poetry.lock", '[[package]]\nname = "combwork"\nversion = "1.5.0"\n', "python", "1.5.0"],
  ["Pipfile.lock", '{"default":{"combwork":{"hashes":[],"version":"==1.5.0"}}}', "python", "1.5.0"],
  [
    "pom.xml",
    "<project><dependencies><dependency>\n<groupId>org.comb</groupId>\n<artifactId>work</artifactId>\n<version>3.2</version></dependency></dependencies></project>",
    "java",
    "3.2.0",
    "org.comb:work",
  ],
  [
    "pom.xml",
    "<project><properties><comb.version>3.3</comb.version></properties><dependencies><dependency><groupId>org.comb</groupId><artifactId>work</artifactId><version>${comb.version}</version></dependency></dependencies></project>",
    "java",
    "3.3.0",
    "org.comb:work",
  ],
  [
    "libs.versions.toml",
    '[versions]\ncomb = "3.2.1"\n[libraries]\nwork = { module = "org.comb:work", version.ref = "comb" }\n',
    "java",
    "3.2.1",
    "org.comb:work",
  ],
  ["build.gradle", "implementation 'org.comb:work:3.2.1'\n", "java", "3.2.1", "org.comb:work"],
  ["composer.json", '{"require":{"comb/work":"~4.1"}}', "php", "4.1.0", "comb/work"],
  ["composer.lock", '{"packages":[{"name":"comb/work","version":"v4.1.7"}]}', "php", "4.1.7", "comb/work"],
  ["Gemfile", 'gem "combwork", "~> 5.0"\n', "ruby", "5.0.0"],
  ["Gemfile.lock", "GEM\n  specs:\n    combwork (5.0.3)\n      rake (>= 1)\n", "ruby", "5.0.3"],
  [
    "yard.csproj",
    '<Project><ItemGroup><PackageReference Include="Combwork" Version="6.0.1" /></ItemGroup></Project>',
    "csharp",
    "6.0.1",
    "Combwork",
  ],
  [
    "packages.config",
    '<packages><package id="Combwork" version="6.0.1" /></packages>',
    "csharp",
    "6.0.1",
    "Combwork",
  ],
  ["CMakeLists.txt", "find_package(Combwork 7.1 REQUIRED)\n", "cpp", "7.1.0", "Combwork"],
  ["conanfile.txt", "[requires]\ncombwork/7.2.1\n", "cpp", "7.2.1"],
  [
    "yard.psd1",
    "@{ RequiredModules = @(@{ ModuleName = 'Combwork'; ModuleVersion = '8.1' }) }",
    "powershell",
    "8.1.0",
    "Combwork",
  ],
  ["requirements.txt", "combwork\n", "python", undefined],
];

test.each(CASES)("%s: %j", (file, text, language, version, ...product) => {
  const folder = mkdtempSync(join(tmpdir(), "uvran-product-"));
  writeFileSync(join(folder, file), text);
  expect(new ProductVersions(folder, product[0] ?? "combwork", language).in(".")?.version).toBe(version);
});

test("the nearest manifest upwards counts, and a lock file above it where it lets that through", () => {
  const root = mkdtempSync(join(tmpdir(), "uvran-product-"));
  const write = (path: string, text: string): void => {
    mkdirSync(dirname(join(root, path)), { recursive: true });
    writeFileSync(join(root, path), text);
  };
  const asks = (range: string): string => JSON.stringify({ dependencies: { combwork: range } });
  const lock = {
    "node_modules/combwork": { version: "2.4.1" },
    "packages/old/node_modules/combwork": { version: "1.3.0" },
  };
  write("package-lock.json", JSON.stringify({ packages: lock }));
  write("package.json", asks("^2.0.0"));
  write("packages/old/package.json", asks("^1.0.0"));
  write("packages/old/src/deep/a.js", "");
  write("packages/new/package.json", asks("^2.1.0"));
  write("packages/own/package.json", asks("^3.0.0"));
  write("packages/none/package.json", "{}");
  const versions = new ProductVersions(root, "combwork", "javascript");
  const said = (folder: string): string | undefined => {
    const { version, says } = versions.in(folder) ?? {};
    return `${version} ${says}`;
  };
  expect(said(".")).toBe("2.4.1 by package-lock.json");
  expect(said("packages/old/src/deep")).toBe("1.3.0 by package-lock.json");
  expect(said("packages/new")).toBe("2.4.1 by package-lock.json");
  expect(said("packages/own")).toBe("3.0.0 by packages/own/package.json");
  expect(said("packages/none")).toBe("2.4.1 by package-lock.json");
  expect(new ProductVersions(root, "combwork", "javascript", "7").in("packages/own")?.version).toBe("7");
});

test("a lock file above that does not let through what is asked for is not meant", () => {
  const root = mkdtempSync(join(tmpdir(), "uvran-product-"));
  mkdirSync(join(root, "old"));
  writeFileSync(join(root, "poetry.lock"), '[[package]]\nname = "combwork"\nversion = "2.1.0"\n');
  const versionFor = (range: string): string | undefined => {
    writeFileSync(join(root, "old", "requirements.txt"), `combwork${range}\n`);
    return new ProductVersions(root, "combwork", "python").in("old")?.version;
  };
  expect(versionFor(">=1.4,<2")).toBe("1.4.0");
  expect(versionFor(">=1.4,<3")).toBe("2.1.0");
  expect(versionFor("~=2.0")).toBe("2.1.0");
});

test.each([
  ["package.json", "{", "javascript"],
  ["Pipfile.lock", "{", "python"],
  ["pyproject.toml", "[", "python"],
  ["composer.lock", "", "php"],
] as const)("a broken %s is named", (file, text, language) => {
  const root = mkdtempSync(join(tmpdir(), "uvran-product-"));
  writeFileSync(join(root, file), text);
  expect(() => new ProductVersions(root, "combwork", language).in(".")).toThrow(`${file} cannot be read: `);
});
