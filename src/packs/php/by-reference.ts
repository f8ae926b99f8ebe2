/** Functions of PHP that write to the variable they are given, by their names in small letters. */
const WRITERS = new Set(
  (
    "sort rsort usort uasort uksort asort arsort ksort krsort natsort natcasesort shuffle array_multisort array_push array_pop " +
    "array_shift array_unshift array_splice array_walk array_walk_recursive end reset next prev each settype preg_match " +
    "preg_match_all preg_replace preg_replace_callback str_replace str_ireplace similar_text parse_str mb_parse_str " +
    "mb_convert_variables exec passthru system getopt fsockopen pfsockopen sscanf fscanf stream_select stream_socket_client " +
    "curl_multi_exec openssl_sign openssl_encrypt openssl_seal openssl_open openssl_public_encrypt openssl_private_decrypt " +
    "openssl_pkey_export flock headers_sent is_callable getmxrr dns_get_record"
  ).split(" "),
);

/** Where a function takes a variable by reference, it may be any of its arguments that is one. */
export const writesToArguments = (name: string): boolean =>
  WRITERS.has(name.replace(/^\\/, "").toLowerCase());
