from collections import defaultdict
import contextlib
import io
import os
import sqlite3
import sys
import tempfile
import threading

PATH = os.path.join(tempfile.mkdtemp(), "wax.txt")
opened = []


def noted(f):
    opened.append(f)
    return f


def write(lines):
    with open(PATH, "w") as f:
        for line in lines:
            f.write(line + "\n")


def first():
    with open(PATH) as f:
        return f.readline().strip()


def fails():
    f = open(PATH)
    noted(f)
    int(f.readline())
    f.close()


def kept():
    f = open(PATH)
    if f.readline():
        return f
    f.close()


def later():
    f = open(PATH)
    if opened:
        return lambda: f.readline()
    f.close()


def rows():
    with contextlib.closing(sqlite3.connect(":memory:")) as db:
        db.execute("create table hive (name text)")
        db.execute("insert into hive values ('North')")
        return db.execute("select name from hive").fetchall()


def merged(paths):
    with contextlib.ExitStack() as stack:
        files = [stack.enter_context(open(p)) for p in paths]
        return [f.readline() for f in files]


gate = threading.Lock()


def counted(words):
    counts = {}
    with gate:
        for word in words:
            counts[word] = counts.get(word, 0) + 1
    return counts, gate.locked()


def grouped(words):
    groups = defaultdict(list)
    for word in words:
        groups[len(word)].append(word)
    return dict(groups)


calls = []


def ask(key):
    calls.append(key)
    return "asked"


def lookups(d: dict, key):
    cheap = d.get(key, 0)
    dear = d[key] if key in d else ask(key)
    x = d.get(key)
    return cheap, dear, x


def cached(d, key):
    value = d.get(key)
    if value is None:
        value = []
        d[key] = value
    value.append(key)
    return d


def fallback(x=None):
    y = x or "default"
    return y


write(["1", "wax"])
print(first())
write(["wax"])
with contextlib.suppress(ValueError):
    fails()
print(kept().closed, later()())
print(rows(), merged([PATH, PATH]))
print(counted(["a", "b", "a"]), grouped(["ab", "c", "de"]))
print(lookups({"a": None}, "a"), lookups({}, "a"), calls)
print(cached({}, "k"), cached({"k": [0]}, "k"))
print(fallback(0), fallback(""), fallback([1]), fallback(None))
