import { holes, ruby, trialsIn } from "../../core.js";
import { handleOf } from "../family/handles.js";
import { callWritten, leakRule } from "../family/leaks.js";
import { RESOURCES } from "./resources.js";

const { name, made } = holes({ name: "name", made: { kind: "expression", node: "call" } });
const { reports, ignores } = trialsIn("ruby");

export const leakingResource = leakRule({
  id: "ruby/leaking-resource",
  was: [ruby`${name} = ${made}`],
  name,
  made,
  mentions: ["open", "new", "popen"],
  acquires: (match) =>
    match.the(made).child("block") === undefined && handleOf(RESOURCES, match.the(made))?.answer.is === "yes",
  release: (use, match) => callWritten(use, match.textOf(name), ["handle.close", "handle&.close"]),
  byException: true,
  never: true,
  yieldsTo: ["ruby/block-form"],
  trials: [
    reports(
      "def f(path)\n  file = File.open(path)\n  return 1 if path\n  file.read\n  file.close\n  2\nend\n",
      "where `return 1` leaves",
    ),
    reports(
      "def f(path)\n  file = File.open(path)\n  text = file.read\n  file.close\n  text\nend\n",
      "when `file.read` throws",
      "likely",
    ),
    reports("def f(path)\n  file = File.open(path)\n  puts file.read\nend\n", "never released"),
    ignores(
      "def f(path)\n  file = File.open(path)\n  begin\n    return file.read\n  ensure\n    begin\n      file.close\n    rescue IOError => e\n      log(e)\n    end\n  end\nend\n",
    ),
    ignores("def f(path)\n  file = File.open(path)\n  file\nend\n"),
    ignores("def f(path)\n  file = File.open(path)\n  @file = file\nend\n"),
    ignores(
      "def f(path)\n  file = File.open(path)\n  begin\n    file.read\n  ensure\n    file.close\n  end\nend\n",
    ),
    ignores(
      "def f(path)\n  file = File.open(path)\n  begin\n    puts 1\n  ensure\n    file.close if file\n  end\nend\n",
    ),
    ignores("def f(path)\n  File.open(path) { |file| file.read }\nend\n"),
    ignores(
      "def f(path)\n  file = File.open(path)\n  begin\n    file.read\n  ensure\n    file.close unless file.nil?\n  end\nend\n",
    ),
    ignores(
      "def f(path)\n  file = File.open(path)\n  begin\n    file.read\n  ensure\n    file.close unless file.closed?\n  end\nend\n",
    ),
    ignores(
      "def f(path)\n  file = File.open(path)\n  begin\n    file.read\n  ensure\n    file.close if !file.nil?\n  end\nend\n",
    ),
    ignores(
      "def f(path)\n  file = File.open(path)\n  begin\n    file.read\n  ensure\n    file and file.close\n  end\nend\n",
    ),
  ],
});
