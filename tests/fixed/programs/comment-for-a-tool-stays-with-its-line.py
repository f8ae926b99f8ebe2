#! target 3.8
import json


def total(path):
    handle = open(path)  # type: ignore
    try:
        return json.load(handle)  # noqa: a long line
    finally:
        handle.close()


def count(words):
    counts = {}
    for word in words:
        if word in counts:  # noqa
            counts[word] += 1
        else:
            counts[word] = 1  # pragma: no cover
    return counts
