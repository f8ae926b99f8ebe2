import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { productVersion } from "uvran/node";

type Language = Parameters<typeof productVersion>[2];

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
    "<dependency>\n<groupId>org.comb</groupId>\n<artifactId>work</artifactId>\n<version>3.2</version></dependency>",
    "java",
    "3.2.0",
    "org.comb:work",
  ],
  [
    "pom.xml",
    "<comb.version>3.3</comb.version><groupId>org.comb</groupId><artifactId>work</artifactId><version>${comb.version}</version>",
    "java",
    "3.3.0",
    "org.comb:work",
  ],
  ["build.gradle", "implementation 'org.comb:work:3.2.1'\n", "java", "3.2.1", "org.comb:work"],
  ["composer.json", '{"require":{"comb/work":"~4.1"}}', "php", "4.1.0", "comb/work"],
  ["composer.lock", '{"packages":[{"name":"comb/work","version":"v4.1.7"}]}', "php", "4.1.7", "comb/work"],
  ["Gemfile", 'gem "combwork", "~> 5.0"\n', "ruby", "5.0.0"],
  ["Gemfile.lock", "GEM\n  specs:\n    combwork (5.0.3)\n      rake (>= 1)\n", "ruby", "5.0.3"],
  ["yard.csproj", '<PackageReference Include="Combwork" Version="6.0.1" />', "csharp", "6.0.1", "Combwork"],
  ["packages.config", '<package id="Combwork" version="6.0.1" />', "csharp", "6.0.1", "Combwork"],
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
  expect(productVersion(folder, product[0] ?? "combwork", language)?.version).toBe(version);
});
