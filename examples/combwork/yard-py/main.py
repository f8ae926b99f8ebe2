"""What the bees of the south meadow are up to."""

import combwork as cw
from combwork import MAX_FRAMES, Frame, Hive, count_frames, drain, names, open_hive

from report import report


def stocked(name, grams):
    hive = open_hive(name, MAX_FRAMES)
    for weight in grams:
        hive.add(Frame("brood", weight))
    return hive


def watch(hive: Hive):
    # the keeper wants to know at once
    hive.on("swarm", lambda it: print("swarm from", it.name))


hives = [stocked("Linden", [1800, 2100, 1950]), stocked("Clover", [900, 1100])]
for one in hives:
    watch(one)
hives.append(cw.open_hive("Heather", size=4))

print(count_frames(hives), "frames in", ", ".join(sorted(names(hives))))
print("first:", names(hives)[0])
for line in report(hives):
    print(line)
hives[0].split()
print(cw.count_frames(hives), "frames left")
print("drained:", drain(hives[1]))
