/** Tests drive what was built: the library's entry points, the command line as a process, pages in a browser. */
export default {
  testEnvironment: "node",
  roots: ["<rootDir>/tests"],
  extensionsToTreatAsEsm: [".ts"],
  transform: { "^.+\\.ts$": ["@swc/jest", { jsc: { parser: { syntax: "typescript" }, target: "es2022" } }] },
  moduleNameMapper: {
    "^uvran$": "<rootDir>/dist/index.js",
    "^uvran/core$": "<rootDir>/dist/core.js",
    "^uvran/packs$": "<rootDir>/dist/packs/index.js",
    "^uvran/packs/moves/(.*)$": "<rootDir>/dist/packs/moves/$1.js",
    "^uvran/packs/(.*)$": "<rootDir>/dist/packs/$1/index.js",
    "^uvran/node$": "<rootDir>/dist/node/index.js",
    "^uvran/workspace$": "<rootDir>/dist/workspace/index.js",
    "^uvran/testing$": "<rootDir>/dist/testing.js",
    "^(\\.{1,2}/.*)\\.js$": "$1",
  },
  // Most tests wait for processes that they start: one worker for each core keeps the run short.
  maxWorkers: "100%",
  testTimeout: 120_000,
};
