import { z } from "zod";
import {
  condition,
  copy,
  holes,
  need,
  no,
  ofKind,
  options,
  removal,
  rule,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Edit, Match, Rule, Segment, SyntaxNode } from "../../../core.js";
import { passedOnAt, type PassedOn } from "./passed-on.js";

const { holder } = holes({ holder: { kind: "statement", node: "class" } });

const settings = z.object({
  by: z
    .enum(["Forwardable", "delegate"])
    .default("Forwardable")
    .describe(
      "what declares it: the module of the standard library, or a class method `delegate … to:` that the project has",
    ),
  renamed: z.boolean().default(false).describe("methods too that call the object's method by another name"),
  least: z.number().int().min(1).default(2).describe("from how many methods for one object on"),
});
type Settings = z.output<typeof settings>;

/** The methods of a class that others may call and that only pass on, in the order of the file. */
function passedOnIn(node: SyntaxNode): PassedOn[] {
  const found: PassedOn[] = [];
  for (const part of node.child("body")?.parts ?? []) {
    if (part.is("identifier") && /^(private|protected|private_class_method|module_function)$/.test(part.text))
      break;
    const one = passedOnAt(part);
    if (one && !isNamedLater(one, node)) found.push(one);
  }
  return found;
}

/** Is the method made private, or given another name, by its symbol? */
function isNamedLater({ name, method }: PassedOn, node: SyntaxNode): boolean {
  return node
    .child("body")!
    .parts.some(
      (part) =>
        part.is("call") &&
        !part.same(method) &&
        /^(private|protected|module_function|public|ruby2_keywords|memoize|deprecate)$/.test(
          part.child("method")?.text ?? "",
        ) &&
        new RegExp(`:${escape(name)}(?![\\w?!=])`).test(part.text),
    );
}

const escape = (name: string): string => name.replace(/[[\]?.*+^$()|\\]/g, "\\$&");

/** Those of one object, from the settings' number on; a method with a comment of its own stays. */
function groupsIn(node: SyntaxNode, { least, renamed }: Settings): PassedOn[][] {
  const groups = new Map<string, PassedOn[]>();
  for (const one of passedOnIn(node)) {
    const { start, end } = one.method;
    const { tree } = one.method;
    const above = tree.text
      .slice(0, tree.lineStart(tree.lineAt(start)))
      .trimEnd()
      .split("\n")
      .at(-1)!
      .trim();
    const isSaid =
      above.startsWith("#") ||
      tree.commentsIn(start, end).length > 0 ||
      /^[ \t]*#/.test(tree.text.slice(end).split("\n")[0]!);
    const isDouble = passedOnIn(node).filter(({ name }) => name === one.name).length > 1;
    if (!isSaid && !isDouble && (renamed || one.as === one.name))
      groups.set(one.to, [...(groups.get(one.to) ?? []), one]);
  }
  return [...groups.values()].filter((group) => group.length >= least);
}

const symbol = (name: string): string =>
  /^[A-Za-z_]\w*[?!=]?$/.test(name) || name === "[]" || name === "[]=" || name === "<<"
    ? `:${name}`
    : `:"${name}"`;

function declarations(group: readonly PassedOn[], by: Settings["by"], indent: string): string[] {
  const same = group.filter((one) => one.name === one.as);
  const [{ to }] = group as [PassedOn];
  const lines: string[] = [];
  if (same.length > 0) {
    const list = same.map((one) => symbol(one.name));
    const line =
      by === "delegate"
        ? `delegate ${list.join(", ")}, to: :${to}`
        : `${same.length > 1 ? "def_delegators" : "def_delegator"} :${to}, ${list.join(", ")}`;
    const broken =
      by === "delegate"
        ? `delegate ${list.join(`,\n${indent}         `)},\n${indent}         to: :${to}`
        : `def_delegators :${to},\n${indent}  ${list.join(`,\n${indent}  `)}`;
    lines.push(indent.length + line.length > 100 ? broken : line);
  }
  for (const one of group)
    if (one.name !== one.as) lines.push(`def_delegator :${to}, ${symbol(one.as)}, ${symbol(one.name)}`);
  return lines;
}

/** Callers could give a block that the method has never handed on. */
function handsBlocksOn(match: Match, set: Settings): Answer {
  const inward = groupsIn(match.the(holder), set)
    .flat()
    .filter(({ takesBlock }) => !takesBlock);
  const often = inward.find(({ as }) =>
    /^(each|map|collect|select|reject|find|detect|inject|reduce|sort|sort_by|group_by|times|open|fetch|any\?|all\?|sum|tap|then|each_\w+|transform_\w+|delete_if)$/.test(
      as,
    ),
  );
  return often
    ? unknown("value.result", `\`${often.name}\` hands no block on, and would then`, often.method)
    : yes("value.result", "the methods take no blocks that they leave out");
}

/** The class may have methods of its own by the names that a declaration brings. */
function isFree(match: Match, by: Settings["by"]): Answer {
  const own = /\bdef\s+self\.(def_delegators?|instance_delegate|delegate)\b/.exec(match.node.text);
  return own && by === "Forwardable"
    ? no("name.free", `the class has \`${own[1]}\` itself`, match.node)
    : yes("name.free", "the class has no such declaration itself");
}

const extendsIt = (node: SyntaxNode): boolean =>
  /^\s*extend\s+(SingleForwardable,\s*)?Forwardable\b/m.test(node.text);

function declared(match: Match, set: Settings): Segment[] {
  const node = match.the(holder);
  const { tree } = node;
  const body = node.child("body")!;
  const edits: Edit[] = [];
  const { by } = set;
  const groups = groupsIn(node, set);
  for (const group of groups) {
    const [first, ...rest] = group;
    const indent = tree.indentAt(first!.method.start);
    const text = declarations(group, by, indent).join(`\n${indent}`);
    edits.push({ start: first!.method.start, end: first!.method.end, text });
    for (const { method } of rest) edits.push(goneWithGap(method));
  }
  if (by === "Forwardable" && !extendsIt(node)) {
    const first = body.firstPart!;
    const indent = tree.indentAt(first.start);
    const isBeside = first.is("call") && /^(include|extend|prepend)$/.test(first.child("method")?.text ?? "");
    const gap = isBeside ? "" : "\n";
    edits.push({ start: first.start, end: first.start, text: `extend Forwardable\n${gap}${indent}` });
  }
  edits.sort((a, b) => a.start - b.start || a.end - b.end);
  // What goes in ahead of a method that is itself replaced is one edit with it.
  const merged = edits.reduce<Edit[]>((list, edit) => {
    const last = list.at(-1);
    if (last && last.end === edit.start && last.start === last.end)
      list[list.length - 1] = { start: last.start, end: edit.end, text: last.text + edit.text };
    else list.push(edit);
    return list;
  }, []);
  return [copy(node.start, node.end, merged)];
}

/** A method with its line, and the empty line ahead of it. */
function goneWithGap(method: SyntaxNode): Edit {
  const edit = removal(method);
  const before = /\n[ \t]*\r?\n$/.exec(method.tree.text.slice(0, edit.start));
  return before ? { ...edit, start: edit.start - before[0].length + 1 } : edit;
}

const { rewrites, ignores, holds } = trialsIn("ruby");

const make = (set: Settings): Rule =>
  rule({
    id: "ruby/delegated",
    kind: "idiom",
    title: "Delegate methods that only pass a message on",
    why: "Methods that only hand a message on take three lines each, and hide the ones that do something.",
    was: ofKind(holder, { when: (node) => groupsIn(node, set).length > 0, together: (node) => [node] }),
    mentions: ["def"],
    options: options(settings, make),
    given: [
      condition("no block is lost that callers give", (match) => handsBlocksOn(match, set)),
      condition("the names of the declaration are free", (match) => isFree(match, set.by)),
    ],
    needs: (match) =>
      set.by === "Forwardable" && !extendsIt(match.the(holder)) ? [need("forwardable")] : [],
    becomes: (match) => declared(match, set),
    trials: [
      rewrites(
        `
        class Hive
          def initialize(queen)
            @queen = queen
          end

          def name
            @queen.name
          end

          def age
            @queen.age
          end

          def weigh
            @queen.weigh * 2
          end
        end
        `,
        `
        require "forwardable"

        class Hive
          extend Forwardable

          def initialize(queen)
            @queen = queen
          end

          def_delegators :@queen, :name, :age

          def weigh
            @queen.weigh * 2
          end
        end
        `,
      ),
      rewrites(
        `
        require "forwardable"

        class Hive
          extend Forwardable
          attr_reader :queen

          def title; queen.name; end
          def name; queen.name; end
          def age=(n); queen.age = n; end
          def feed(a, *rest, &block) = queen.feed(a, *rest, &block)
          def [](i) = @frames[i]
          def each(&block)
            @frames.each(&block)
          end
        end
        `,
        `
        require "forwardable"

        class Hive
          extend Forwardable
          attr_reader :queen

          def title; queen.name; end
          def_delegators :queen, :name, :age=, :feed
          def_delegators :@frames, :[], :each
        end
        `,
      ),
      rewrites(
        "class Hive\n  def each\n    @frames.each\n  end\n\n  def size\n    @frames.size\n  end\nend\n",
        'require "forwardable"\n\nclass Hive\n  extend Forwardable\n\n  def_delegators :@frames, :each, :size\nend\n',
        "likely",
      ),
      trialsIn("ruby", undefined, { renamed: true }).rewrites(
        "class Hive\n  extend Forwardable\n  def title; @queen.name; end\n  def age; @queen.age; end\nend\n",
        "class Hive\n  extend Forwardable\n  def_delegator :@queen, :age\n  def_delegator :@queen, :name, :title\nend\n",
      ),
      trialsIn("ruby", undefined, { by: "delegate", least: 1 }).rewrites(
        "class Hive\n  attr_reader :queen\n\n  def name\n    queen.name\n  end\nend\n",
        "class Hive\n  attr_reader :queen\n\n  delegate :name, to: :queen\nend\n",
      ),
      holds(
        "class Hive\n  def self.def_delegators(*); end\n\n  def name = @queen.name\n  def age = @queen.age\nend\n",
        "itself",
      ),
      // One method alone is no gain.
      ignores("class Hive\n  def name\n    @queen.name\n  end\nend\n"),
      ignores("class Hive\n  def name\n    @queen&.name\n  end\n\n  def age\n    @queen&.age\n  end\nend\n"),
      ignores(
        "class Hive\n  private\n\n  def name\n    @queen.name\n  end\n\n  def age\n    @queen.age\n  end\nend\n",
      ),
      ignores("class Hive\n  def name = @queen.name\n  def age = @queen.age\n  private :name, :age\nend\n"),
      ignores("class Hive\n  def name(x) = @queen.name\n  def age(a, b) = @queen.age(b, a)\nend\n"),
      ignores(
        "class Hive\n  def name(x = 1) = @queen.name(x)\n  def age(deep: true) = @queen.age(deep: deep)\nend\n",
      ),
      ignores("class Hive\n  def name = @queen.name.to_s\n  def age = @queen.find(1)\nend\n"),
      // What is said of a method stays with it.
      ignores(
        "class Hive\n  # The name.\n  def name = @queen.name\n\n  # The age.\n  def age = @queen.age\nend\n",
      ),
    ],
  });

export const delegated = make(settings.parse({}));
