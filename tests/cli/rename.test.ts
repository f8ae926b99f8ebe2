import { Sandbox } from "./run.js";

const CONFIG = `import { holes, pack, renamed, rule, python } from "uvran";
const { name, given, body } = holes({ name: "name", given: "parameters", body: "statements" });
export default { packs: [pack("own", [rule({
  id: "python/snake-name", kind: "idiom", title: "Name functions in snake case", why: "It is the custom.",
  was: python\`
    def \${name}(\${given}):
        \${body}
  \`,
  where: [(match) => /[a-z][A-Z]/.test(match.textOf(name))],
  uses: renamed(name, (match) => match.textOf(name).replace(/[A-Z]/g, (c) => "_" + c.toLowerCase())),
  trials: [],
})])] };
`;

test("one change over several files: shown, applied, proved again and taken back as one", () => {
  const files = {
    "yard/hives.py": "def countFrames(hive):\n    return len(hive.frames)\n",
    "yard/main.py": "from hives import countFrames\nprint(countFrames(hive))\n",
    "yard/made.py": "# generated, do not edit\nfrom hives import other\n",
  };
  const project = new Sandbox({ "uvran.config.ts": CONFIG, ...files });
  const { out } = project.uvran("propose");
  expect(out).toMatch(/likely .*snake-name[^]*all 3 uses in 2 files[^]*\n {2}yard\/main\.py\n/);
  expect(project.uvran("propose", "--diff").out.match(/^\+\+\+ /gm)).toHaveLength(2);
  expect(project.uvran("apply", "--trust", "likely").out).toContain("1 change in 2 files.");
  expect(project.read("yard/main.py")).toBe("from hives import count_frames\nprint(count_frames(hive))\n");
  expect(project.uvran("propose").out).toBe("");
  expect(project.uvran("undo").out).toContain("2 files as before");
  expect(project.read("yard/main.py")).toBe(files["yard/main.py"]);
  project.write("yard/made.py", "# generated, do not edit\nfrom hives import countFrames\n");
  expect(project.uvran("propose").out).toContain("yard/made.py names `countFrames` and is generated");
  // The file of the declaration alone is asked for: the others are looked at all the same.
  expect(project.uvran("propose", "yard/hives.py").out).toContain("yard/main.py");
});

test("a plan is refused whole when one of its files has changed", () => {
  const project = new Sandbox({
    "uvran.config.ts": CONFIG,
    "a.py": "def countAll(x):\n    return x\n",
    "b.py": "from a import countAll\n",
  });
  project.uvran("propose");
  project.write("b.py", "from a import countAll  # here\n");
  const refused = project.uvran("apply", "--trust", "possible");
  expect(refused.exit).toBe(1);
  expect(refused.err).toContain("b.py");
  expect(project.read("a.py")).toContain("countAll");
});
