#! target 3.8
#! run
import sys


class Jars(dict):
    if sys.version_info > (2,):

        def __contains__(self, key):
            return True

        def get(self, key, other=None):
            return "got"


def look(jars: Jars, key):
    return jars[key] if key in jars else "none" #! held: of its own


jars = Jars()
try:
    print(look(jars, "a"))
except KeyError:
    print("missing")
