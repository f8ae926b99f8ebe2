import { tellOrigins } from "../../pattern/index.js";
import type { Import, SyntaxNode } from "../../syntax/index.js";
import { escaped } from "../../syntax/index.js";
import { no, type Answer } from "../answer.js";
import { importsIn } from "../names/imports.js";
import { shortened } from "../shown.js";
import { broughtWhole } from "./brought-whole.js";
import { typeWritten } from "./known.js";
import { isLibraryType } from "./library.js";
import { comesFromModule, mayBeCalled, originFits, ownNameOf, type Wanted } from "./origin.js";

/**
 * Does a name, or a chain of members, come from where something is wanted from? By an import, under whatever name, through the
 * module, or in full; for a type also by what the project and the imports of whole namespaces leave open.
 */
export function namesWanted(node: SyntaxNode, { module, name }: Import): Answer {
  const { id } = node.tree.language;
  if (id === "java" && name !== undefined && isMemberOfType(module)) {
    const bare = bareMember(node, module, name);
    if (bare) return bare;
  }
  const answers = spellingsOf(id, { module, name }).map((wanted) => comesFromModule(node, wanted));
  const sure = answers.find(({ is }) => is === "yes") ?? answers.find(({ is }) => is === "unknown");
  if (!sure) return answers[0]!;
  const whole = sure.is === "unknown" ? broughtWhole(node, { module, name }) : undefined;
  if (whole) return whole;
  const type = sure.is === "unknown" && name !== undefined && id === "java" ? typeWritten(node) : undefined;
  return type
    ? isLibraryType(type, { names: [name!], module: new RegExp(`^${escaped(module)}$`), what: name! }, node)
    : sure;
}

/** Is it a type of Java that has the member, and no package? */
const isMemberOfType = (module: string): boolean => /(?:^|\.)[A-Z]\w*$/.test(module);

/** A member that is named without its type comes from a static import, or from a type above. */
function bareMember(node: SyntaxNode, module: string, name: string): Answer | undefined {
  if (!node.isLeaf) return undefined;
  const { tree, text } = node;
  const shown = shortened(text);
  if (text !== name) return no("name.library", `\`${shown}\` is not called \`${name}\``, node);
  const type = module.split(".").at(-1)!;
  const isImported = importsIn(tree).some((one) => one.form === "static" && one.module === module);
  const mayBeInherited = new RegExp(`\\b(extends|implements)\\b[^{]*\\b${type}\\b`).test(tree.text);
  return isImported || mayBeInherited
    ? undefined
    : no("name.library", `nothing in this file brings in the members of \`${type}\``, node);
}

/** What to look for: in scripts a module of Node has two names, and an import by default gives the same members. */
function spellingsOf(id: string, { module, name }: Import): Wanted[] {
  if (!["javascript", "typescript", "tsx"].includes(id)) return [wantedBy(module, name)];
  const bare = module.replace(/^node:/, "");
  const names: (string | undefined)[] = name === undefined ? [name] : [name, `default.${name}`];
  // A module that is called by `require` stands for what it exports by default, too.
  if (name === "default") names.push(undefined);
  return [bare, `node:${bare}`].flatMap((from) => names.map((member) => wantedBy(from, member)));
}

const wantedBy = (module: string, name: string | undefined): Wanted =>
  name === undefined ? { module } : { module, name };

/** What a pattern asks for, made ready for one language. */
interface Asked {
  readonly name: string | undefined;
  readonly spellings: readonly Wanted[];
}

const asked = new WeakMap<Import, Map<string, Asked>>();

function askedFor(id: string, wanted: Import): Asked {
  let byLanguage = asked.get(wanted);
  if (!byLanguage) asked.set(wanted, (byLanguage = new Map()));
  let found = byLanguage.get(id);
  if (!found)
    byLanguage.set(id, (found = { name: ownNameOf(id, wanted.name), spellings: spellingsOf(id, wanted) }));
  return found;
}

tellOrigins((node, wanted) => {
  const { id } = node.tree.language;
  if (id === "java") return namesWanted(node, wanted).is;
  const { name, spellings } = askedFor(id, wanted);
  if (name !== undefined && !mayBeCalled(node, name)) return "no";
  let found: Answer["is"] = "no";
  for (const one of spellings) {
    const is = originFits(node, one);
    if (is === "yes") return is;
    // What is exported by default has no name of its own: only an import can say that something is that.
    if (is === "unknown" && wanted.name !== "default") found = is;
  }
  return found;
});
