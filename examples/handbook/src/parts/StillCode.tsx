import { coloured } from "../../../common/highlight.js";
import { fileOf } from "../rules";

/** Code that is only shown. */
export function StillCode({ language, code }: { readonly language: string; readonly code: string }) {
  return (
    <pre className="still" tabIndex={0}>
      <code>
        {coloured(fileOf(language), code.replace(/\n$/, "")).map(({ text, classes }, i) =>
          classes === "" ? (
            text
          ) : (
            <span key={i} className={classes}>
              {text}
            </span>
          ),
        )}
      </code>
    </pre>
  );
}
