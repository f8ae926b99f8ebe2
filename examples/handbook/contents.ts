import GithubSlugger from "github-slugger";
import { fromMarkdown } from "mdast-util-from-markdown";
import { gfmTableFromMarkdown } from "mdast-util-gfm-table";
import { toString } from "mdast-util-to-string";
import { gfmTable } from "micromark-extension-gfm-table";
import { readFileSync } from "node:fs";
import type { Contents, Section } from "./src/contents.js";
import { GUIDES } from "./src/guides.js";

const text = (path: string): string => readFileSync(new URL(`../../${path}`, import.meta.url), "utf8");

/** All that the pages are made from beside the guides themselves. */
export async function contents(): Promise<Contents> {
  await import("uvran/node");
  const { factsOf } = await import("uvran/core");
  const { SHIPPED } = await import("uvran/packs");
  const packs = await Promise.all(
    SHIPPED.map(async ({ name, rules }) => ({ name, rules: await Promise.all(rules.map(factsOf)) })),
  );
  const sections = GUIDES.flatMap(({ name }) => sectionsOf(name, text(`docs/${name}.md`)));
  return { packs, sections };
}

/** A guide by its headings, each with the text below it. */
function sectionsOf(guide: string, markdown: string): Section[] {
  const tree = fromMarkdown(markdown, {
    extensions: [gfmTable()],
    mdastExtensions: [gfmTableFromMarkdown()],
  });
  const slugs = new GithubSlugger();
  const sections: { -readonly [K in keyof Section]: Section[K] }[] = [];
  for (const node of tree.children) {
    if (node.type === "heading")
      sections.push({
        guide,
        depth: node.depth,
        heading: toString(node),
        slug: slugs.slug(toString(node)),
        text: "",
      });
    else {
      const last = sections.at(-1);
      if (last) last.text += `${toString(node)} `;
    }
  }
  return sections;
}
