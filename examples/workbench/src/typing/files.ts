/** The declarations that a rule file is checked against: the language's own, Uvran's and zod's. */
const texts = new Map<string, string>();

const add = (found: Readonly<Record<string, string>>, cut: string, into: string): void => {
  for (const [path, text] of Object.entries(found))
    texts.set(into + path.slice(path.indexOf(cut) + cut.length), text);
};

add(
  import.meta.glob<string>(
    "../../../../node_modules/typescript/lib/lib.{es5,es2015*,es2016*,es2017*,es2018*,es2019*,es2020*,es2021*,es2022*,decorators*}.d.ts",
    { query: "?raw", import: "default", eager: true },
  ),
  "typescript/lib/",
  "/lib/",
);
add(
  import.meta.glob<string>(
    "../../../../dist/{index.d.ts,core.d.ts,{syntax,pattern,rewrite,embed,analysis,readings,rules,engine,plan,draft,report}/**/*.d.ts}",
    { query: "?raw", import: "default", eager: true },
  ),
  "dist/",
  "/node_modules/uvran/",
);
add(
  import.meta.glob<string>(["../../../../node_modules/zod/{index.d.ts,v4/**/*.d.ts}"], {
    query: "?raw",
    import: "default",
    eager: true,
  }),
  "node_modules/zod/",
  "/node_modules/zod/",
);
for (const name of ["uvran", "zod"]) {
  const exports = { ".": { types: "./index.d.ts" }, "./core": { types: "./core.d.ts" } };
  texts.set(
    `/node_modules/${name}/package.json`,
    JSON.stringify({ name, version: "0.0.0", type: "module", exports }),
  );
}

/** The text of a declaration file, by its path. */
export const declarations: ReadonlyMap<string, string> = texts;
