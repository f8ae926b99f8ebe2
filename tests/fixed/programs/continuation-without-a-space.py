#! target 3.8
#! run
def look(found, key):
    x =\
        found[key] if key in found else None #! possible
    return x


def fill(key):
    found = {}
    if key not in found:\ #! certain
        found[key] = []
    return found


print(look({}, 1), fill(2))
