#! target 3.8
#! run
class Defaults(dict):
    def __contains__(self, key):
        return True

    def __getitem__(self, key):
        return 7


def look(found: dict, key: str):
    return found[key] if key in found else 0 #! possible


def sure(key):
    found = {"a": 1}
    return found[key] if key in found else 0 #! certain


def own(key):
    found = Defaults()
    return found[key] if key in found else 0


print(look(Defaults(), "x"), sure("b"), own("c"))
