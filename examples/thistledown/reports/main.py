"""Prints the season's report."""
import os.path

from rows import Late, by_keeper, first, read


def heavy(rows, least: float):
    found = []
    for row in rows:
        if row.kilograms >= least:
            found.append(row.hive)
    return found


def lines(rows):
    for row in rows:
        yield row


def ranked(names: list, places: list):
    assert len(names) == len(places)
    out = []
    for i in range(len(names)):
        out.append("{0}. {1}".format(places[i], names[i]))
    return out


def main():
    rows = read(os.path.join(os.path.dirname(__file__), "weights.csv"))
    rows.append(Late("Moor", "Bo", 3.5, 2))
    for row in lines(rows):
        print("%-6s%6.2f kg" % (row.hive, row.kilograms))
    sums = by_keeper(rows)
    for keeper in sorted(sums.keys()):
        print("{}: {:.2f}".format(keeper, sums[keeper]))
    for keeper in sums:
        if sums[keeper] > 15:
            print("%s brought most, %d%% of it" % (keeper, 100 * sums[keeper] / sum(sums.values())))
    print(", ".join(heavy(rows, 9)))
    print("\n".join(ranked(["heather", "clover"], [1, 2])))
    print(first(rows, "Moor"), str("end"))


main()
