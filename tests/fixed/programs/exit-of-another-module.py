#! run
from builtins import print as exit


class Jar:
    def __init__(self, kg):
        self.kg = kg


def weighed(jars):
    out = []  #! held: is read later
    for jar in jars:
        out.append(jar.kg)
    exit("weighed")
    print(jar.kg)
    return out


print(weighed([Jar(1), Jar(2)]))
