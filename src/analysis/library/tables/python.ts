import type { LibraryCalls, LibraryClasses, LibraryValues } from "../facts.js";
import { rowsOf } from "./words.js";

const { calls, callsIn, classes, classesIn } = rowsOf("python");

/** Python's built-in functions and methods, and those of its standard library. */
export const CALLS: readonly LibraryCalls[] = [
  calls("len hash", { effect: "none", asksArguments: true, gives: "int" }),
  calls("id", { effect: "none", neverThrows: true, gives: "int" }),
  calls("ord", { effect: "none", gives: "int" }),
  calls("callable", { effect: "none", neverThrows: true, gives: "bool" }),
  calls("isinstance issubclass", { effect: "none", asksArguments: true, gives: "bool" }),
  calls("bool", { effect: "none", asksArguments: true, gives: "bool" }),
  calls("str repr ascii format chr bin oct hex", { effect: "none", asksArguments: true, gives: "str" }),
  calls("int", { effect: "none", asksArguments: true, gives: "int" }),
  calls("float", { effect: "none", asksArguments: true, gives: "float" }),
  calls("abs round divmod pow", { effect: "none", asksArguments: true }),
  calls("type", { effect: "none", keeps: true }),
  calls("range", { effect: "none", asksArguments: true, gives: "range" }),
  calls("list sorted", { effect: "reads", asksArguments: true, keeps: true, gives: "list" }),
  calls("tuple", { effect: "reads", asksArguments: true, keeps: true, gives: "tuple" }),
  calls("set frozenset", { effect: "reads", asksArguments: true, keeps: true, gives: "set" }),
  calls("dict", { effect: "reads", asksArguments: true, keeps: true, gives: "dict" }),
  calls("min max sum", { effect: "reads", asksArguments: true, keeps: true }),
  calls("any all", { effect: "reads", asksArguments: true, gives: "bool" }),
  calls("print", { effect: "prints", asksArguments: true }),

  calls(
    "str#strip str#lstrip str#rstrip str#lower str#upper str#title str#capitalize str#casefold str#swapcase " +
      "str#replace str#center str#ljust str#rjust str#zfill str#expandtabs str#removeprefix str#removesuffix",
    { effect: "none", gives: "str" },
  ),
  calls("str#join str#format", { effect: "reads", asksArguments: true, gives: "str" }),
  calls("str#split str#rsplit str#splitlines", { effect: "none", gives: "list" }),
  calls("str#partition str#rpartition", { effect: "none", gives: "tuple" }),
  calls(
    "str#startswith str#endswith str#isdigit str#isalpha str#isalnum str#isspace str#isupper str#islower " +
      "str#isidentifier str#isnumeric str#isdecimal",
    { effect: "none", gives: "bool" },
  ),
  calls("str#find str#rfind str#index str#rindex str#count", { effect: "none", gives: "int" }),
  calls("str#encode", { effect: "none", gives: "bytes" }),
  calls("bytes#decode", { effect: "none", gives: "str" }),
  calls("list#append list#insert list#extend", { effect: "changes", keeps: true }),
  calls("list#sort list#remove", { effect: "changes", asksArguments: true, runs: true }),
  calls("list#pop list#clear list#reverse", { effect: "changes" }),
  calls("list#index list#count", { effect: "reads", asksArguments: true, gives: "int" }),
  calls("list#copy", { effect: "reads", gives: "list" }),
  calls("dict#get", { effect: "reads", asksArguments: true, keeps: true, orMissing: true }),
  calls("dict#copy", { effect: "reads", gives: "dict" }),
  calls("dict#setdefault dict#update dict#pop", { effect: "changes", asksArguments: true, keeps: true }),
  calls("dict#popitem dict#clear", { effect: "changes" }),
  calls("set#add set#update", { effect: "changes", asksArguments: true, keeps: true }),
  calls("set#discard set#remove", { effect: "changes", asksArguments: true }),
  calls("set#pop set#clear", { effect: "changes" }),

  calls("open", { effect: "changes", asksArguments: true, acquires: true }),
  ...Object.entries({
    io: "open",
    os: "fdopen",
    codecs: "open",
    gzip: "open",
    bz2: "open",
    lzma: "open",
    tarfile: "open",
    zipfile: "ZipFile",
    tempfile: "TemporaryFile NamedTemporaryFile TemporaryDirectory",
    "urllib.request": "urlopen",
  }).map(([module, names]) =>
    callsIn(module, names, { effect: "changes", asksArguments: true, acquires: true }),
  ),

  callsIn("os.path", "join basename dirname normpath split splitext splitdrive commonprefix relpath", {
    effect: "reads",
    asksArguments: true,
  }),
  callsIn("os.path", "abspath realpath expanduser expandvars normcase", {
    effect: "reads",
    asksArguments: true,
  }),
  callsIn("os.path", "exists lexists isfile isdir islink ismount isabs", {
    effect: "reads",
    asksArguments: true,
    gives: "bool",
  }),
  callsIn("os.path", "getsize", { effect: "reads", asksArguments: true, gives: "int" }),
  callsIn("os.path", "getmtime getatime getctime", { effect: "reads", asksArguments: true, gives: "float" }),
  callsIn("os", "getcwd", { effect: "reads", gives: "str" }),
  callsIn("os", "listdir", { effect: "reads", asksArguments: true, gives: "list" }),
  callsIn("os", "getpid", { effect: "reads", neverThrows: true, gives: "int" }),
  callsIn("os", "getenv", { effect: "reads", keeps: true, orMissing: true }),
  callsIn("time", "time monotonic perf_counter process_time", {
    effect: "reads",
    neverThrows: true,
    gives: "float",
  }),
  callsIn("time", "time_ns monotonic_ns perf_counter_ns", {
    effect: "reads",
    neverThrows: true,
    gives: "int",
  }),
  callsIn(
    "math",
    "sqrt exp log log2 log10 sin cos tan asin acos atan atan2 hypot radians degrees fabs fmod copysign",
    {
      effect: "none",
      asksArguments: true,
      gives: "float",
    },
  ),
  callsIn("math", "isnan isinf isfinite isclose", { effect: "none", asksArguments: true, gives: "bool" }),
  callsIn("math", "gcd factorial", { effect: "none", asksArguments: true, gives: "int" }),
  callsIn("re", "escape", { effect: "none" }),
  callsIn("re", "match search fullmatch", { effect: "none", orMissing: true }),
  callsIn("json", "dumps", { effect: "reads", asksArguments: true, runs: true, gives: "str" }),
  callsIn("json", "loads", { effect: "none", runs: true, orMissing: true }),
  callsIn("json", "dump load", { effect: "changes", asksArguments: true, runs: true, orMissing: true }),
  callsIn("pickle", "dump load", { effect: "changes", asksArguments: true, runs: true, orMissing: true }),
  callsIn("shutil", "copyfileobj", { effect: "changes", asksArguments: true }),
];

export const VALUES: readonly LibraryValues[] = [
  { language: "python", in: "sys", values: ["modules"], type: "dict" },
  { language: "python", in: "sys", values: ["argv", "path"], type: "list" },
  { language: "python", in: "os", values: ["environ"], type: "MutableMapping", typeIn: "collections.abc" },
];

const LOCKS = "Lock RLock Condition Semaphore BoundedSemaphore";

/** Classes of Python's standard library, with those of `typing` that stand for them. */
export const CLASSES: readonly LibraryClasses[] = [
  classes("dict", ["map"]),
  classesIn("typing", "Dict OrderedDict DefaultDict Counter Mapping MutableMapping ChainMap", ["map"]),
  classesIn("collections", "OrderedDict defaultdict Counter ChainMap", ["map"]),
  classesIn("collections.abc", "Mapping MutableMapping", ["map"]),
  classes("list tuple str bytes range", ["sequence"]),
  classesIn("typing", "List Tuple Sequence MutableSequence", ["sequence"]),
  classesIn("collections.abc", "Sequence MutableSequence", ["sequence"]),
  classesIn("threading", LOCKS, ["lock"]),
  classesIn("multiprocessing", LOCKS, ["lock"]),
];
