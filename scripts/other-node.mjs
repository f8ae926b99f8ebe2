// Runs tests with another version of Node, on Linux: npm run test:node -- 24 tests/published
// The version comes as a package that holds the program and nothing else; no script of it is run.
import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { delimiter, join } from "node:path";

const [version = "24", ...tests] = process.argv.slice(2);
const folder = mkdtempSync(join(tmpdir(), "uvran-node-"));
const asked = `node-linux-${process.arch}@${version}`;
const packed = execFileSync("npm", ["pack", asked, "--silent", "--pack-destination", folder], {
  encoding: "utf8",
});
execFileSync("tar", ["-xzf", join(folder, packed.trim().split("\n").at(-1)), "-C", folder]);
const bin = join(folder, "package", "bin");
const env = { ...process.env, PATH: `${bin}${delimiter}${process.env.PATH}` };
execFileSync(join(bin, "node"), ["--version"], { stdio: "inherit" });
const jest = ["--experimental-vm-modules", "node_modules/jest/bin/jest.js", ...tests];
process.exitCode = spawnSync(join(bin, "node"), jest, { stdio: "inherit", env }).status ?? 1;
