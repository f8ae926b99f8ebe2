import type { LanguageId } from "uvran/core";

/** Code of the co-operative's in the style of its day, and a rule that brings it forward. */
export interface SampleCode {
  readonly name: string;
  readonly rule: string;
  readonly language: LanguageId;
  readonly code: string;
}

export const SAMPLES: readonly SampleCode[] = [
  {
    name: "JavaScript",
    rule: "javascript/value-or-fallback",
    language: "javascript",
    code: `export function keeperOf(hive) {
  const keeper = find(hive);
  return keeper !== null && keeper !== undefined
    ? keeper
    : "nobody";
}
`,
  },
  {
    name: "TypeScript",
    rule: "javascript/value-or-fallback",
    language: "typescript",
    code: `export function jarsIn(weight: number | undefined, perJar: number) {
  const grams = weight !== undefined ? weight : 0;
  return Math.floor(grams / perJar);
}
`,
  },
  {
    name: "Python",
    rule: "python/scoped-resource",
    language: "python",
    code: `def weigh(path):
    log = open(path)
    try:
        return sum(float(line) for line in log)
    finally:
        log.close()
`,
  },
  {
    name: "Java",
    rule: "java/optional-consumed",
    language: "java",
    code: `import java.util.Optional;

class Apiary {
    String queenOf(Optional<String> queen) {
        if (queen.isPresent()) {
            return queen.get();
        }
        throw new IllegalStateException("no queen");
    }
}
`,
  },
  {
    name: "C++",
    rule: "cpp/owned-local",
    language: "cpp",
    code: `struct Hive { int frames = 0; };

int count() {
    Hive* hive = new Hive();
    hive->frames = 10;
    int frames = hive->frames;
    delete hive;
    return frames;
}
`,
  },
  {
    name: "C#",
    rule: "csharp/guarded-read",
    language: "csharp",
    code: `class Queen { public string Breeder; }
class Hive
{
    Queen queen;
    string Breeder() { return queen != null ? queen.Breeder : null; }
}
`,
  },
  {
    name: "PHP",
    rule: "php/value-or-fallback",
    language: "php",
    code: `<?php
function keeper(array $hive)
{
    if (isset($hive['keeper'])) {
        return $hive['keeper'];
    }
    return 'nobody';
}
`,
  },
  {
    name: "Ruby",
    rule: "ruby/block-form",
    language: "ruby",
    code: `def weights(path)
  log = File.open(path)
  log.each_line.map(&:to_f)
ensure
  log.close if log
end
`,
  },
  {
    name: "PowerShell",
    rule: "powershell/streamed",
    language: "powershell",
    code: `function Get-Jars($Lots) {
    $jars = @()
    foreach ($lot in $Lots) {
        $jars += $lot.Jars
    }
    $jars
}
`,
  },
];
