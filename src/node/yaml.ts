import type yaml from "yaml";
import { whenNeeded } from "./when-needed.js";

/** The package that reads and writes YAML; few projects have a file for it. */
export const yamlPackage = whenNeeded<typeof yaml>("yaml");
