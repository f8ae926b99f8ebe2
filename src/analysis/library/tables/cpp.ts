import type { LibraryCalls, LibraryClasses } from "../facts.js";
import { rowsOf } from "./words.js";

const { calls, classesIn } = rowsOf("cpp");

/** Functions of the C library, which know no exceptions; C++ has them in `std` too. */
export const CALLS: readonly LibraryCalls[] = [
  calls(
    "strlen strcmp strncmp memcmp strcasecmp strncasecmp abs labs isalpha isdigit isalnum isspace isupper islower " +
      "toupper tolower",
    { effect: "none", neverThrows: true },
  ),
  calls("atoi atol atof feof ferror ftell fileno", { effect: "reads", neverThrows: true }),
  calls("time clock", { effect: "reads", varies: true, neverThrows: true }),
  calls("getenv strchr strrchr strstr", { effect: "reads", neverThrows: true, keeps: true, orMissing: true }),
  calls("strtol strtoul strtod", { effect: "changes", neverThrows: true, keeps: true }),
  calls(
    "fputs fprintf fscanf fseek fflush fgetc fputc fread fwrite rewind getc putc ungetc clearerr printf puts putchar " +
      "snprintf sprintf sscanf perror rewinddir rename remove assert",
    { effect: "changes", neverThrows: true },
  ),
  calls("fgets memcpy memmove memset strcpy strncpy strcat", {
    effect: "changes",
    neverThrows: true,
    keeps: true,
    orMissing: true,
  }),
  calls("setbuf setvbuf readdir", { effect: "changes", neverThrows: true, keeps: true, orMissing: true }),
  calls("fopen fdopen freopen popen opendir malloc calloc realloc", {
    effect: "changes",
    neverThrows: true,
    keeps: true,
    acquires: true,
    orMissing: true,
  }),
  calls("fclose pclose closedir free", { effect: "changes", neverThrows: true, releases: true }),
];

export const CLASSES: readonly LibraryClasses[] = [
  classesIn("std", "mutex recursive_mutex timed_mutex recursive_timed_mutex shared_mutex", ["lock"]),
  classesIn("std", "map unordered_map", ["map"]),
  classesIn("std", "vector array deque string", ["sequence"]),
];
