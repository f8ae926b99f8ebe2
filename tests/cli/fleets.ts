import { Sandbox } from "./run.js";

export const BRANCH = "uvran/newer-idioms";
export const OLD = `def label(jar):
    if jar is None:
        name = "none"
    else:
        name = jar
    return name

def each(jars: list):
    for i in range(len(jars)):
        print(i, jars[i])

each([1, 2])
print(label(None), label("clover"))
`;
/** A program that prints another text when its loop is written in another way. */
export const TOUCHY = `${OLD}print("enum" + "erate" in open(__file__).read())\n`;
export const CONFIG = 'export default { checks: [{ name: "prints", run: "python3 count.py" }] };\n';

/** Repositories of git in a folder each, with a list of them. */
export function fleetOf(repositories: Readonly<Record<string, string>>, list: object = {}): Sandbox {
  const sandbox = new Sandbox({ "uvran.config.mjs": CONFIG });
  for (const [name, code] of Object.entries(repositories)) {
    sandbox.write(`${name}/count.py`, code);
    sandbox.run("git", "init", "--quiet", "--initial-branch=main", name);
    commit(sandbox, name);
  }
  const entries = { config: "uvran.config.mjs", repositories: Object.keys(repositories), ...list };
  sandbox.write("uvran.fleet.yaml", JSON.stringify(entries));
  return sandbox;
}

export function commit(sandbox: Sandbox, name: string): void {
  const who = ["-c", "user.name=Keeper", "-c", "user.email=keeper@thistledown.example"];
  sandbox.run("git", "-C", name, "add", "--all");
  sandbox.run("git", ...who, "-C", name, "commit", "--quiet", "--message", "as it is");
}

/** Who makes the commits of the copies. */
for (const role of ["AUTHOR", "COMMITTER"]) {
  process.env[`GIT_${role}_NAME`] = "Keeper";
  process.env[`GIT_${role}_EMAIL`] = "keeper@thistledown.example";
}

export const copyOf = (name: string): string => `uvran.fleet.work/repositories/${name}/code`;
export const subjects = (sandbox: Sandbox, name: string): string[] =>
  sandbox.run("git", "-C", copyOf(name), "log", "--format=%s", `main..${BRANCH}`).out.trim().split("\n");
export const tip = (sandbox: Sandbox, name: string): string =>
  sandbox.run("git", "-C", copyOf(name), "rev-parse", `${BRANCH}`).out.trim();
export const tree = (sandbox: Sandbox, name: string): string =>
  sandbox.run("git", "-C", copyOf(name), "rev-parse", `${BRANCH}^{tree}`).out.trim();
