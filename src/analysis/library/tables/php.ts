import type { LibraryCalls, LibraryClasses } from "../facts.js";
import { rowsOf } from "./words.js";

const { calls } = rowsOf("php");

/** Functions of PHP itself. */
export const CALLS: readonly LibraryCalls[] = [
  calls(
    "is_null is_array is_string is_int is_integer is_float is_bool is_numeric is_object is_resource is_scalar",
    { effect: "none", neverThrows: true, gives: "bool" },
  ),
  calls("strlen mb_strlen strcmp strncmp strcasecmp ord substr_count", { effect: "none", gives: "int" }),
  calls("count", { effect: "none", asksArguments: true, gives: "int" }),
  calls(
    "trim ltrim rtrim strtolower strtoupper ucfirst lcfirst ucwords strrev str_repeat str_pad htmlspecialchars addslashes " +
      "nl2br md5 sha1 dechex bin2hex chr urlencode rawurlencode basename dirname",
    { effect: "none", gives: "string" },
  ),
  calls("implode join sprintf number_format strval", {
    effect: "none",
    asksArguments: true,
    gives: "string",
  }),
  calls("intval", { effect: "none", asksArguments: true, gives: "int" }),
  calls("floatval doubleval", { effect: "none", asksArguments: true, gives: "float" }),
  calls("abs floor ceil round max min", { effect: "none", asksArguments: true, keeps: true }),
  calls("array_keys array_values array_merge array_slice array_unique array_flip array_reverse range", {
    effect: "none",
    asksArguments: true,
    keeps: true,
    gives: "array",
  }),
  calls("explode str_split", { effect: "none" }),
  calls("array_map array_filter", { effect: "reads", runs: true, keeps: true, gives: "array" }),
  calls("in_array array_key_exists", { effect: "none", asksArguments: true, gives: "bool" }),
  calls("time", { effect: "reads", neverThrows: true, gives: "int" }),
  calls("microtime", { effect: "reads" }),
  calls("file_exists is_file is_dir is_readable is_writable", { effect: "reads", gives: "bool" }),
  calls(
    "strpos stripos strrpos strstr strrchr preg_match preg_split json_encode realpath getenv filesize filemtime scandir " +
      "glob parse_url parse_ini_file base64_decode array_search current next reset end tempnam date_create " +
      "file_get_contents unserialize DateTime::createFromFormat",
    { effect: "changes", asksArguments: true, keeps: true, orFalse: true, orMissing: true },
  ),
  calls("fopen opendir", { effect: "changes", acquires: true, orFalse: true }),
  calls("fgets fgetc fread fgetcsv stream_get_contents ftell fwrite fputs fputcsv", {
    effect: "changes",
    orFalse: true,
  }),
  calls("feof fseek rewind flock ftruncate fflush fpassthru", { effect: "changes" }),
  calls("readdir", { effect: "changes", orFalse: true }),
  calls("fclose closedir", { effect: "changes", releases: true }),
];

export const CLASSES: readonly LibraryClasses[] = [];
