#! target 3.8
#! run
from typing import Union


def spread(key, *found: dict):
    return found[key] if key in found else 0


def many(found: "list[dict]", key):
    return found[key] if key in found else 0 #! possible


def either(found: Union[dict, list], key):
    return found[key] if key in found else 0 #! possible


print(spread(0, {}), many([], 1), either([], 1))
