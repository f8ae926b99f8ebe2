/** What stands behind the language of a code block that can be run: `uvran=RULE-ID target=VERSION`. */
export interface Live {
  readonly rule: string;
  readonly told: { readonly target?: string };
}

export function liveIn(meta: string | undefined): Live | undefined {
  const words = new Map(
    (meta ?? "").split(/\s+/).map((word) => {
      const [name, value = ""] = word.split("=");
      return [name!, value];
    }),
  );
  const rule = words.get("uvran");
  const target = words.get("target");
  return rule === undefined ? undefined : { rule, told: target === undefined ? {} : { target } };
}
