import type { VersionFacts } from "../version-facts.js";

export const powershellVersions: VersionFacts = {
  bringsLibrary: true,
  kinds: {
    class_statement: ["5.0", "a class"],
    enum_statement: ["5.0", "an enum"],
    ternary_expression: ["7.0", "`? :`"],
  },
  tokens: { "??": "7.0", "??=": "7.0", "?.": "7.0", "&&": "7.0", "||": "7.0" },
  names: { "3.0": "PSCustomObject", "7.0": "Get-Error" },
};
