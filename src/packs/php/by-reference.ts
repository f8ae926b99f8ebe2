/** Functions of PHP that write to variables they are given, in small letters, with the places of those among the arguments. */
const WRITERS: readonly (readonly [places: readonly number[], names: string])[] = [
  [
    [0],
    "sort rsort usort uasort uksort asort arsort ksort krsort natsort natcasesort shuffle array_push array_pop array_shift " +
      "array_unshift array_splice array_walk array_walk_recursive end reset next prev each settype openssl_pkey_export",
  ],
  [
    [1],
    "parse_str mb_parse_str curl_multi_exec openssl_sign openssl_public_encrypt openssl_private_decrypt passthru system",
  ],
  [[1, 2], "exec getmxrr openssl_open"],
  [[2], "preg_match preg_match_all similar_text flock getopt is_callable"],
  [[3], "str_replace str_ireplace"],
  [[4], "preg_replace preg_replace_callback"],
  [[0, 1], "headers_sent"],
  [[0, 1, 2], "stream_select"],
  [[2, 3], "fsockopen pfsockopen"],
];
/** Of these, any number of the arguments. */
const ANY = /^(?:array_multisort|sscanf|fscanf|mb_convert_variables|openssl_seal|openssl_encrypt)$/i;

const PLACES = new Map(WRITERS.flatMap(([places, names]) => names.split(" ").map((name) => [name, places])));

/** Does the function of PHP that has this name write to its argument at a place? */
export function writesToArgument(name: string, place: number): boolean {
  const plain = name.replace(/^\\/, "").toLowerCase();
  return ANY.test(plain) || (PLACES.get(plain)?.includes(place) ?? false);
}
