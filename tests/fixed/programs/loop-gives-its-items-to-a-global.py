#! run
last = None


def names(jars):
    global last
    all = [] #! likely python/comprehension
    for last in jars:
        all.append(last.upper())
    return all


print(names(["a", "b"]), last)
