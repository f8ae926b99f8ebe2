"""Reads a JSON list of pieces of Python and prints what each does with several sets of values for its free names."""

import builtins
import json
import re
import sys


def hashed(text):
    h = 7
    for char in text:
        h = (h * 31 + ord(char)) & 0xFFFFFFFF
    return h


PLAIN = [None, 0, "", False, [], {}, 7, "text", [1, 2], {"a": 1}]


class Thing:
    def __init__(self, path, seed, log):
        self.__dict__["_p"] = (path, seed, log)

    def __getattr__(self, name):
        path, seed, log = self.__dict__["_p"]
        if name.startswith("__"):
            raise AttributeError(name)
        value = sample(path + "." + name, seed, log) if path.count(".") < 3 else name
        self.__dict__[name] = value
        return value

    def __call__(self, *args):
        path, seed, log = self.__dict__["_p"]
        log.append(path + "(" + ",".join(map(show, args)) + ")")
        return sample(path + "()", seed, log)

    def __repr__(self):
        return "<" + self.__dict__["_p"][0] + ">"


def sample(path, seed, log):
    pick = hashed(f"{path} {seed}") % 14
    value = PLAIN[pick] if pick < len(PLAIN) else Thing(path, seed, log)
    return value.copy() if isinstance(value, (list, dict)) else value


def given(function, name, path, seed, log):
    """A value for a parameter, of the type that it is annotated with."""
    typed = {dict: {"a": 1, 7: "seven", "text": None}, list: [3, 0, None], str: "text", int: 3}
    given_type = function.__annotations__.get(name)
    if given_type in (dict, list, str, int):
        value = typed[given_type]
        return value.copy() if isinstance(value, (list, dict)) else value
    return sample(path, seed, log)


def show(value):
    if callable(value) and not isinstance(value, Thing):
        return "[function]"
    return repr(value)


CALLED = re.compile(r"^(note|g|mark|find|make|read|take|next|weigh|count)$")


class Names(dict):
    def __init__(self, seed, log):
        super().__init__(vars(builtins))
        self.seed, self.log = seed, log

    def __missing__(self, name):
        if CALLED.match(name):
            def called(*args, name=name):
                self.log.append(name + "(" + ",".join(map(show, args)) + ")")
                return sample(name + "()", self.seed, self.log)

            value = called
        else:
            value = sample(name, self.seed, self.log)
        self[name] = value
        return value


def once(code, seed):
    log = []
    scope = {"__builtins__": Names(seed, log), "__name__": "trial"}
    try:
        exec(code, scope)
        for name, value in list(scope.items()):
            if hasattr(value, "__code__"):
                try:
                    names = value.__code__.co_varnames[: value.__code__.co_argcount]
                    args = [given(value, arg, f"argument{i}", seed, log) for i, arg in enumerate(names)]
                    log.append(f"{name}()={show(value(*args))}")
                except Exception as error:
                    log.append(f"{name}!{type(error).__name__}")
    except Exception as error:
        log.append("throws " + type(error).__name__)
    log += [
        f"{name}:{show(value)}"
        for name, value in sorted(scope.items(), key=lambda item: item[0])
        if not name.startswith("__") and not hasattr(value, "__code__")
    ]
    return re.sub(r"0x[0-9a-f]+", "", "|".join(log))


codes = json.load(sys.stdin)
print(json.dumps(["\n".join(once(code, seed) for seed in range(40)) for code in codes]))
