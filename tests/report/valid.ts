import { readFileSync, writeFileSync } from "node:fs";
import { resolve } from "node:path";
import ts from "typescript";
import { validateXML } from "xmllint-wasm";
import { Sandbox } from "../cli/run.js";

/** What is wrong with results of tests, by the schema of a build server that reads them; undefined where nothing is. */
export async function junitFaults(xml: string): Promise<string | undefined> {
  const schema = readFileSync("tests/report/junit.xsd", "utf8");
  const { valid, rawOutput } = await validateXML({ xml, schema });
  return valid ? undefined : rawOutput;
}

/**
 * What is wrong with results of a static analysis, by the published types of the format: as TypeScript takes a literal, unknown
 * properties are faults too.
 */
export function sarifFaults(json: string): readonly string[] {
  const file = new Sandbox().path("log.ts");
  writeFileSync(file, `import type { Log } from "sarif";\nexport const log: Log = ${json};\n`);
  const program = ts.createProgram([file], {
    strict: true,
    noEmit: true,
    skipLibCheck: true,
    types: [],
    paths: { sarif: [resolve("node_modules/@types/sarif/index.d.ts")] },
  });
  return ts
    .getPreEmitDiagnostics(program)
    .map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, "\n"));
}
