/** Modules that Node itself has, as they are named without `node:`. */
const BUILT_IN = new Set(
  (
    "assert assert/strict async_hooks buffer child_process cluster console constants crypto dgram diagnostics_channel dns " +
    "dns/promises domain events fs fs/promises http http2 https inspector inspector/promises module net os path path/posix " +
    "path/win32 perf_hooks process punycode querystring readline readline/promises repl stream stream/consumers " +
    "stream/promises stream/web string_decoder sys timers timers/promises tls tty url util util/types v8 vm wasi " +
    "worker_threads zlib"
  ).split(" "),
);

/** Is this a module of Node? `buffer/` is none: it is the package of that name. */
export const isBuiltIn = (name: string): boolean => name.startsWith("node:") || BUILT_IN.has(name);
