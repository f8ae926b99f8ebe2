import { holes, trialsIn } from "../../core.js";
import { needlessTestRule } from "../family/needless-tests.js";

const { what } = holes({ what: { kind: "expression", node: "identifier" } });
const { reports, ignores } = trialsIn("ruby");

export const needlessTest = needlessTestRule({
  id: "ruby/needless-test",
  what,
  trials: [
    reports("def f\n  h = Hive.new\n  h.open unless h.nil?\nend\n", "always false"),
    reports("def f(h)\n  return if h.nil?\n  g\n  puts h.nil?\nend\n", "always false"),
    ignores("def f(h)\n  h.open unless h.nil?\nend\n"),
    ignores("def f(h)\n  h = find if h.nil?\n  g if h.nil?\nend\n"),
    ignores("def f(h)\n  h.to_s\n  g if h.nil?\nend\n"),
    ignores("def f\n  @h = Hive.new\n  g if @h.nil?\nend\n"),
  ],
});
