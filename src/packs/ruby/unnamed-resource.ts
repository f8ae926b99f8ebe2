import { holes, ruby, trialsIn } from "../../core.js";
import { unnamedRule } from "../family/unnamed.js";
import { RESOURCES } from "./resources.js";

const { made, method, args } = holes({
  made: { kind: "expression", node: "call" },
  method: "name",
  args: "arguments",
});
const { reports, ignores } = trialsIn("ruby");

export const unnamedResource = unnamedRule({
  id: "ruby/unnamed-resource",
  was: [ruby.expression`${made}.${method}`, ruby.expression`${made}.${method}(${args})`],
  made,
  method,
  rows: RESOURCES,
  form: "a block",
  trials: [
    reports("def f(p)\n  File.new(p).read\nend\n", "`File.new(p)` is never closed"),
    reports("def f(p)\n  File.open(p).readlines(chomp: true)\nend\n", "`File.open(p)`"),
    ignores("def f(p)\n  File.open(p).close\nend\n"),
    ignores("def f(p)\n  File.open(p) { |jar| jar.read }.strip\nend\n"),
    reports(
      "require 'socket'\ndef f\n  TCPSocket.new('hive', 80).gets\nend\n",
      "`TCPSocket.new('hive', 80)`",
    ),
    ignores("def f(p)\n  File.read(p).strip\nend\n"),
  ],
});
