import type { Import, SyntaxNode, WholeImports } from "../../syntax/index.js";
import { unknown, yes, type Answer } from "../answer.js";
import { classesNamed, filesWith } from "../classes/class-index.js";
import { placeOf } from "../classes/own-class.js";
import { nameInFile } from "../names/declarations.js";
import { importsIn } from "../names/imports.js";
import { shortened } from "../shown.js";
import { standsInProject, textFound } from "../text-found.js";

/**
 * A name that no import spells out, in a file that brings in all of the module that is asked for: does it come from there?
 * Undefined where the file does not bring it in, or the language spells names out.
 */
export function broughtWhole(node: SyntaxNode, { module, name }: Import): Answer | undefined {
  const { tree } = node;
  const { wholeImports } = tree.language.imports;
  if (wholeImports === undefined || name === undefined || node.text !== name) return undefined;
  const whole = importsIn(tree).filter(({ imports }) =>
    imports.some((item) => item.local === undefined && (item.name === "*" || item.name === undefined)),
  );
  const brings = whole.find((statement) => statement.module === module);
  if (!brings) return undefined;
  const shown = shortened(node.text);
  const last = name.split(/[.:\\]+/).at(-1)!;
  const { classes, isWhole, otherwise } = classesNamed(tree, last);
  const [own] = classes;
  const place = own ? placeOf(own) : (otherwise ?? definedIn(node, last, wholeImports));
  if (place !== undefined)
    return unknown("name.library", `the project has a \`${last}\` of its own (${place})`, node);
  if (!isWhole)
    return unknown("name.not-resolved", `only this file was looked at for another \`${last}\``, node);
  const other = whole.find(
    (statement) => statement !== brings && mayBring(node, statement.module, wholeImports),
  );
  return other
    ? unknown("name.not-resolved", `\`${shown}\` may come from \`${other.module}\` too`, other.node)
    : yes("name.library", `\`${shown}\` comes from \`${module}\``, brings.node);
}

/** May another module that is brought in have the name too? Not the platform's, and not one of the project, whose names are known. */
function mayBring(node: SyntaxNode, module: string, { hide, declares }: WholeImports): boolean {
  const { tree } = node;
  if (!hide || tree.language.imports.isOfPlatform?.(module)) return false;
  const form = declares?.(module);
  if (form === undefined) return true;
  const word = module.split(".").at(-1)!;
  return textFound(tree, form) === undefined && !filesWith(tree, word).some(({ text }) => form.test(text));
}

/**
 * Is a class that no file of the project declares one of the platform? Yes where a file brings in whole modules of the platform,
 * and of the project, and of nobody else, and stands in modules of the project itself.
 */
export function isPlatformClass(name: string, { tree }: SyntaxNode): Answer {
  const { wholeImports, isOfPlatform } = tree.language.imports;
  const says = (why: string): Answer => unknown("name.not-resolved", `\`${name}\` ${why}`);
  const { classes, isWhole, otherwise } = classesNamed(tree, name);
  if (!wholeImports?.hide || !isWhole || classes.length > 0 || otherwise !== undefined)
    return says("may be a class of the project");
  if (nameInFile(name, tree).declarations.length > 0) return says("is something else in this file");
  const statements = importsIn(tree);
  const platform = statements.find(
    ({ module, imports }) => isOfPlatform?.(module) && imports.some((one) => one.name === "*"),
  );
  if (!platform) return says("comes from a place that is not seen here");
  const other = statements.find(
    ({ module, imports }) =>
      imports.some(({ local }) => local === name) || mayBring(tree.root, module, wholeImports),
  );
  if (other) return says(`may come from \`${other.module}\``);
  const { forAllFiles, standsIn } = wholeImports;
  if (forAllFiles && standsInProject(tree, forAllFiles.word, forAllFiles.form))
    return says("may come from what another file brings in for all");
  const around = standsIn?.(tree).find((module) => mayBring(tree.root, module, wholeImports));
  return around === undefined
    ? yes(
        "name.library",
        `\`${name}\` is a class of the platform, since nothing else is brought in`,
        platform.node,
      )
    : says(`may be a class of \`${around}\` in another assembly`);
}

/** The file of the project that defines a function or a member of the name. */
function definedIn({ tree }: SyntaxNode, name: string, { defines }: WholeImports): string | undefined {
  const form = defines?.(name);
  return form && filesWith(tree, name).find(({ text }) => form.test(text))?.path;
}
