#! target 3.8
#! run
def look(key, total, parts):
    found = {"a": 1}
    return found[key] if key in found else total / parts #! likely


print(look("a", 1, 0))
