#!/usr/bin/env node
import module from "node:module";

// What Node has compiled is kept for the next start, where it can do that: from version 22.1 on.
const { enableCompileCache } = module as { readonly enableCompileCache?: () => unknown };
enableCompileCache?.();
await import("./main.js");
