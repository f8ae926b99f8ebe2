import { useEffect, useState } from "react";
import Markdown, { type Components } from "react-markdown";
import rehypeSlug from "rehype-slug";
import remarkGfm from "remark-gfm";
import type { LanguageId } from "uvran/core";
import { addressOf, ruleAddress } from "../route";
import { ruleOf } from "../rules";
import { liveIn } from "../live";
import { TryIt } from "./TryIt";
import { StillCode } from "./StillCode";

const TEXTS = import.meta.glob<string>("../../../../docs/*.md", { query: "?raw", import: "default" });
const PICTURES = import.meta.glob<string>("../../../../docs/screenshots/*.png", {
  query: "?url",
  import: "default",
  eager: true,
});

/** A guide of `docs/`, with the code in it that can be run. */
export function Guide({ name, at }: { readonly name: string; readonly at: string | undefined }) {
  const [text, setText] = useState<string>();
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    let isLeft = false;
    TEXTS[`../../../../docs/${name}.md`]!().then(
      (loaded) => !isLeft && setText(loaded),
      () => !isLeft && setProblem("This page could not be loaded. Reload to try again."),
    );
    return () => {
      isLeft = true;
    };
  }, [name]);
  useEffect(() => {
    if (text !== undefined && at !== undefined) document.getElementById(at)?.scrollIntoView();
  }, [text, at]);
  if (problem !== undefined) return <p className="problem">{problem}</p>;
  if (text === undefined) return <p className="quiet">Loading …</p>;
  return (
    <article>
      <Markdown remarkPlugins={[remarkGfm]} rehypePlugins={[rehypeSlug]} components={partsFor(name)}>
        {text}
      </Markdown>
    </article>
  );
}

function partsFor(guide: string): Components {
  return {
    a: ({ href = "", children }) => {
      const address = addressOf(href, guide);
      if (address === undefined && !/^https?:/.test(href)) return <>{children}</>;
      return <a href={address ?? href}>{children}</a>;
    },
    img: ({ src = "", alt }) => (
      <img
        src={PICTURES[`../../../../docs/${String(src).replace(/^(\.\/|docs\/)/, "")}`]}
        alt={alt ?? ""}
        loading="lazy"
      />
    ),
    // A rule that is named leads to its page.
    code: ({ children }) => {
      const isRule = typeof children === "string" && ruleOf(children) !== undefined;
      return isRule ? (
        <a href={ruleAddress(children)}>
          <code>{children}</code>
        </a>
      ) : (
        <code>{children}</code>
      );
    },
    table: ({ children }) => (
      <div className="wide" tabIndex={0} role="region" aria-label="Table">
        <table>{children}</table>
      </div>
    ),
    pre: ({ node }) => {
      const [code] = node?.children ?? [];
      if (code?.type !== "element") return null;
      const [inside] = code.children;
      const text = inside?.type === "text" ? inside.value : "";
      const [kind = ""] = Array.isArray(code.properties["className"]) ? code.properties["className"] : [];
      const language = String(kind).replace(/^language-/, "");
      const live = liveIn((code.data as { meta?: string } | undefined)?.meta);
      if (!live) return <StillCode language={language} code={text} />;
      const choice = { language: language as LanguageId, code: text, says: "", ...live.told };
      return <TryIt rule={live.rule} choices={[choice]} isNamed />;
    },
  };
}
