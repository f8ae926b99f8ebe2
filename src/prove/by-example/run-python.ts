/** The same as for JavaScript, for a module of Python: a program in that language, which is written into the scratch folder. */
export const RUN_PYTHON = String.raw`
import asyncio, builtins, datetime, importlib, inspect, io, itertools, json, os, random, re, signal, sys, time, types

answers = os.fdopen(os.dup(1), "w")
SCRATCH = sys.argv[1]
SECONDS = float(sys.argv[2])
sys.setrecursionlimit(2000)
MOST_SHOWN = 20000

FORBIDDEN = re.compile(
    r"^(socket\.(connect|bind|sendto|sendmsg|getaddrinfo|gethostbyname)|subprocess\.Popen|os\.(system|exec|fork|forkpty|posix_spawn|spawn|startfile"
    r"|remove|rename|rmdir|mkdir|link|symlink|truncate|chmod|chown|kill|putenv|utime|setxattr|removexattr)|shutil\.(rmtree|move|copyfile|copytree|chown|make_archive|unpack_archive)"
    r"|ftplib|imaplib|nntplib|poplib|smtplib|telnetlib|urllib\.Request|webbrowser\.open|pty\.spawn|tempfile\.(mkdtemp|mkstemp))"
)

def guard(event, parts):
    if event == "open":
        path, mode, flags = parts
        writes = (isinstance(mode, str) and any(c in mode for c in "wax+")) or (
            mode is None and isinstance(flags, int) and flags & (os.O_WRONLY | os.O_RDWR | os.O_CREAT)
        )
        if writes:
            raise PermissionError("nothing is written here")
    elif FORBIDDEN.match(event):
        raise PermissionError("this is not done here: " + event)

TIME = 1715938200.0
time.time = lambda: TIME
time.sleep = lambda _: None

def made(value):
    kind = value["is"]
    of = value.get("of")
    if kind in ("missing", "null"):
        return None
    if kind == "nan":
        return float("nan")
    if kind == "infinity":
        return float("inf")
    if kind == "list":
        return [made(one) for one in of]
    if kind == "table":
        return {name: made(one) for name, one in of}
    if kind == "thing":
        return types.SimpleNamespace(**{name: made(one) for name, one in of})
    if kind == "date":
        return datetime.datetime.fromtimestamp(of / 1000, datetime.timezone.utc)
    if kind == "callback":
        return lambda *_, **__: made(of)
    return of

def shown(value):
    try:
        text = repr(value)
    except Exception as error:
        text = "<" + type(error).__name__ + " when it is shown>"
    return re.sub(r" at 0x[0-9a-f]+", "", text)[:MOST_SHOWN]

def settled(value):
    if inspect.iscoroutine(value):
        return asyncio.run(value)
    if inspect.isgenerator(value) or type(value).__name__ in ("zip", "map", "filter", "enumerate", "islice", "reversed", "list_reverseiterator", "list_iterator", "dict_keyiterator"):
        return ("items", list(itertools.islice(value, 100)))
    return value

class Endless(BaseException):
    pass

def alarm(*_):
    raise Endless()

signal.signal(signal.SIGALRM, alarm)

def load(path):
    path = os.path.realpath(path)
    folder, name = os.path.split(path)
    parts = [name[: -len(".py")]]
    sys.path.insert(0, folder)
    while os.path.exists(os.path.join(folder, "__init__.py")):
        folder, above = os.path.split(folder)
        parts.insert(0, above)
    sys.path.insert(0, folder)
    sys.argv = [path]
    if parts[-1] == "__init__":
        parts.pop()
    name = ".".join(parts)
    # What has the name of a module that is loaded already is the project's all the same.
    for known in [one for one in sys.modules if one == name or one.startswith(name + ".")]:
        del sys.modules[known]
    return importlib.import_module(name)

# What a guarded process loads while it calls something must not be written anywhere either.
sys.dont_write_bytecode = True
OF_THE_LANGUAGE = {"AttributeError", "TypeError", "NameError", "UnboundLocalError", "IndexError", "KeyError", "ZeroDivisionError", "ValueError", "RecursionError"}

module = None
sys.addaudithook(guard)
for line in sys.stdin:
    asked = json.loads(line)
    out = sys.stdout = sys.stderr = io.StringIO()
    answer = {"result": "loaded", "threw": False, "after": "", "printed": ""}
    random.seed(1)
    try:
        if "load" in asked:
            module = load(asked["load"])
        else:
            called = getattr(module, asked["name"], None)
            if not callable(called):
                answer.update(result="it is not there once its module is loaded", threw=True, missing=True)
            else:
                args = [made(one) for one in asked["args"]]
                try:
                    signal.setitimer(signal.ITIMER_REAL, SECONDS)
                    try:
                        answer["result"] = shown(settled(called(*args)))
                    finally:
                        signal.setitimer(signal.ITIMER_REAL, 0)
                except Endless:
                    answer.update(result="does not end", threw=True)
                except RecursionError:
                    answer.update(result="never stops calling itself", threw=True)
                except (Exception, SystemExit) as error:
                    name = type(error).__name__
                    answer.update(result="raises " + name + ("" if name in OF_THE_LANGUAGE else ": " + str(error)[:2000]), threw=True)
                answer["after"] = shown(args)
    except (Exception, SystemExit) as error:
        answer.update(result=type(error).__name__ + ": " + str(error)[:2000], threw=True)
    answer["printed"] = out.getvalue()[:MOST_SHOWN]
    answers.write(json.dumps(answer) + "\n")
    answers.flush()
`;
