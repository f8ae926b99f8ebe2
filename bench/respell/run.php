<?php
// Reads a JSON list of pieces of PHP and prints what each does with several sets of values for its variables.
error_reporting(0);

function hashed(string $text): int
{
    $h = 7;
    foreach (str_split($text) as $char) {
        $h = ($h * 31 + ord($char)) % 4294967296;
    }
    return $h;
}

/** Answers every call, and has its properties from the start. */
#[AllowDynamicProperties]
class Thing
{
    public function __construct(public string $path, public int $depth)
    {
        foreach ($depth > 2 ? [] : ['queen', 'age', 'note', 'hive', 'weight'] as $name) {
            $this->$name = sample("$path.$name", $depth + 1);
        }
    }

    public function __call($name, $args)
    {
        Log::$all[] = "$this->path->$name(" . json_encode($args) . ')';
        return sample("$this->path.$name()", $this->depth + 1);
    }
}

class Log
{
    public static array $all = [];
    public static int $seed = 0;
}

function sample(string $path, int $depth = 0)
{
    $pick = hashed($path . ' ' . Log::$seed) % 14;
    $plain = [null, false, 0, '', 7, 'text', [], ['w' => 1, 'age' => null], ['queen' => ['age' => 3]]];
    return $pick < count($plain) ? $plain[$pick] : new Thing($path, $depth);
}

foreach (['f', 'g', 'find', 'make', 'note', 'read', 'weigh', 'take'] as $name) {
    eval("function $name(...\$args) { Log::\$all[] = '$name(' . json_encode(\$args) . ')'; return sample('$name()'); }");
}

function scene(string $code): void
{
    preg_match_all('/\$([a-z]\w*)/i', $code, $found);
    foreach (array_unique($found[1]) as $name) {
        // Some are not there at all.
        if ($name !== 'this' && $name !== 'code' && hashed($name . Log::$seed) % 5 > 0) {
            $$name = sample($name);
        }
    }
    unset($found, $name);
    eval($code);
    $variables = get_defined_vars();
    unset($variables['code']);
    ksort($variables);
    Log::$all[] = json_encode($variables);
}

function once(string $code, int $seed, int $number): string
{
    Log::$all = [];
    Log::$seed = $seed;
    $code = preg_replace('/^<\?php\s/', '', $code);
    $suffix = "_{$number}_{$seed}";
    $functions = [];
    $code = preg_replace_callback('/\bfunction (\w+)\(/', function ($m) use ($suffix, &$functions) {
        $functions[] = $m[1] . $suffix;
        return "function {$m[1]}$suffix(";
    }, $code);
    try {
        scene($code);
        foreach ($functions as $name) {
            if (!function_exists($name)) continue;
            $count = (new ReflectionFunction($name))->getNumberOfParameters();
            $args = array_map(fn ($i) => sample("argument$i"), $count > 0 ? range(1, $count) : []);
            $given = $name(...$args);
            Log::$all[] = str_replace($suffix, '', $name) . '=' . json_encode($given);
        }
    } catch (Throwable $e) {
        Log::$all[] = 'throws ' . get_class($e);
    }
    return implode('|', Log::$all);
}

$codes = json_decode(stream_get_contents(STDIN), true);
$result = [];
foreach ($codes as $number => $code) {
    // Classes cannot be declared twice.
    $one = preg_match('/\b(class|interface|namespace|static::|self::)\b/', $code)
        ? ['not run']
        : array_map(fn ($seed) => once($code, $seed, $number), range(0, 39));
    $result[] = implode("\n", $one);
}
echo json_encode($result);
