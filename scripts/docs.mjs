// Writes the parts of docs/ that are made from the code.
import { mkdirSync, writeFileSync } from "node:fs";
import { codesPage, coveragePage, packPage, planJsonSchema, rulesIndex } from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";
import { apiPage } from "./api-page.mjs";
import { codeExamples } from "./code-examples.mjs";

const docs = new URL("../docs/", import.meta.url);
writeFileSync(new URL("plan.schema.json", docs), JSON.stringify(planJsonSchema(), null, 2) + "\n");
mkdirSync(new URL("rules/", docs), { recursive: true });
writeFileSync(new URL("rules/README.md", docs), rulesIndex(SHIPPED));
writeFileSync(new URL("codes.md", docs), await codesPage(SHIPPED, codeExamples(SHIPPED)));
writeFileSync(new URL("api.md", docs), apiPage());
writeFileSync(new URL("coverage.md", docs), coveragePage(SHIPPED));
for (const pack of SHIPPED) writeFileSync(new URL(`rules/${pack.name}.md`, docs), await packPage(pack));
