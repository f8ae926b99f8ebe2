import { useSyncExternalStore } from "react";
import { GUIDES } from "./guides";

/** Where in the handbook one is. */
export type Route =
  | { readonly page: "start" }
  | { readonly page: "rules" }
  | { readonly page: "rule"; readonly id: string }
  | { readonly page: "guide"; readonly name: string; readonly at?: string }
  | { readonly page: "nowhere"; readonly address: string };

export const START = "#/";
export const RULES = "#/rules";
export const ruleAddress = (id: string): string => `#/rules/${id}`;
export const guideAddress = (name: string, at?: string): string =>
  `#/guides/${name}${at === undefined ? "" : `/${at}`}`;

export function routeOf(hash: string): Route {
  const [first, ...rest] = decoded(hash.replace(/^#\/?/, "")).split("/");
  if (first === "") return { page: "start" };
  if (first === "rules" && rest.length === 0) return { page: "rules" };
  if (first === "rules") return { page: "rule", id: rest.join("/") };
  const [name, at] = rest;
  if (first === "guides" && GUIDES.some((guide) => guide.name === name))
    return { page: "guide", name: name!, ...(at === undefined ? {} : { at }) };
  return { page: "nowhere", address: hash };
}

/** What stands in an address, also where somebody has cut it in the middle of a letter. */
function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** Where a link of a guide leads within the handbook; undefined for one that leads elsewhere. */
export function addressOf(href: string, guide: string): string | undefined {
  if (href.startsWith("#")) return guideAddress(guide, href.slice(1));
  const [path, at] = href.split("#") as [string, string?];
  const rules = /^rules\/(\w+)\.md$/.exec(path);
  // A rule's heading is its id without the slash.
  if (rules?.[1] !== undefined && rules[1] !== "README")
    return at === undefined ? RULES : ruleAddress(`${rules[1]}/${at.slice(rules[1].length)}`);
  if (path === "rules/README.md") return RULES;
  if (path === "../README.md") return START;
  const name = /^([\w-]+)\.md$/.exec(path)?.[1];
  return name === undefined || !GUIDES.some((one) => one.name === name) ? undefined : guideAddress(name, at);
}

function listen(changed: () => void): () => void {
  addEventListener("hashchange", changed);
  return () => removeEventListener("hashchange", changed);
}

export function useRoute(): Route {
  const hash = useSyncExternalStore(listen, () => location.hash);
  return routeOf(hash);
}
