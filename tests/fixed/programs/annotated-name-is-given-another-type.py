#! run
def load(d):
    return [d]


def kept(d: dict):
    if "a" in d: #! certain python/lookup-or-default
        v = d["a"]
    else:
        v = 1
    return v


def given(d: dict):
    d = load(d)
    if "a" in d: #! possible python/lookup-or-default
        v = d["a"]
    else:
        v = 1
    return v


def same(d: dict):
    d = {"a": len(d)}
    if "a" in d: #! certain python/lookup-or-default
        v = d["a"]
    else:
        v = 1
    return v


def later(d: dict):
    if "a" in d: #! certain python/lookup-or-default
        v = d["a"]
    else:
        v = 1
    d = load(d)
    return v, d


def local(d):
    n: dict = {}
    n = load(d)
    if "a" in n: #! possible python/lookup-or-default
        v = n["a"]
    else:
        v = 1
    return v


print(kept({}), given({}), same({}), later({"a": 3}), local(2))
