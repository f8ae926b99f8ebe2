# `path` of the module was seen in the chain `wrap.path.join`, though a call gives what `join` is read of.
from os import path


def read(folder, wrap):
    place = wrap(path).join(folder, "x")
    with open(place) as file:
        return file.read()


def written(folder):
    place = path.join(folder, "x") #! likely python/path-value
    with open(place) as file:
        return file.read()


def weighed(folder, timed):
    place = path.join(folder, "x") #! held: which the rule does not know
    return timed(path.getsize)(place)
