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
    f = open(PATH, "w")
    for line in lines:
        f.write(line + "\n")
    f.close()


def first():
    f = open(PATH)
    try:
        return f.readline().strip()
    finally:
        f.close()


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
    db = sqlite3.connect(":memory:")
    try:
        db.execute("create table hive (name text)")
        db.execute("insert into hive values ('North')")
        return db.execute("select name from hive").fetchall()
    finally:
        db.close()


def merged(paths):
    files = [open(p) for p in paths]
    try:
        return [f.readline() for f in files]
    finally:
        for f in files:
            f.close()


gate = threading.Lock()


def counted(words):
    counts = {}
    gate.acquire()
    try:
        for word in words:
            if word in counts:
                counts[word] += 1
            else:
                counts[word] = 1
    finally:
        gate.release()
    return counts, gate.locked()


def grouped(words):
    groups = {}
    for word in words:
        if len(word) not in groups:
            groups[len(word)] = []
        groups[len(word)].append(word)
    return groups


calls = []


def ask(key):
    calls.append(key)
    return "asked"


def lookups(d: dict, key):
    cheap = d[key] if key in d else 0
    dear = d[key] if key in d else ask(key)
    if key in d:
        x = d[key]
    else:
        x = None
    return cheap, dear, x


def cached(d, key):
    value = d.get(key)
    if value is None:
        value = []
        d[key] = value
    value.append(key)
    return d


def fallback(x=None):
    if x:
        y = x
    else:
        y = "default"
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
