import { defaultTreeAdapter as nodes, parse, type DefaultTreeAdapterMap } from "parse5";
import { languageOf } from "../syntax/index.js";
import { slice, type Region } from "./region.js";

type Node = DefaultTreeAdapterMap["node"];

/** What the type of a script may say when it is JavaScript; none is said mostly. */
const TYPES = ["", "module", "text/javascript", "application/javascript", "text/ecmascript"];

/** The scripts that stand in an HTML page itself. */
export function scriptsInHtml(text: string): Region[] {
  const regions: Region[] = [];
  const visit = (node: Node): void => {
    if (nodes.isElementNode(node) && node.tagName === "script") {
      const attribute = (name: string): string | undefined =>
        node.attrs.find((attr) => attr.name === name)?.value;
      const place = node.sourceCodeLocation;
      const isCode = attribute("src") === undefined && TYPES.includes(attribute("type") ?? "");
      if (isCode && place?.startTag && place.endTag) {
        const region = slice(
          text,
          languageOf("javascript"),
          place.startTag.endOffset,
          place.endTag.startOffset,
        );
        if (region.text.trim() !== "") regions.push(region);
      }
    }
    if ("content" in node) visit(node.content);
    if ("childNodes" in node) node.childNodes.forEach(visit);
  };
  visit(parse(text, { sourceCodeLocationInfo: true }));
  return regions;
}
