"""Rows of the season's report, as the first version of it had them."""
import csv
from typing import Dict, List, Optional


class Row(object):
    def __init__(self, hive, keeper, kilograms):
        self.hive = hive
        self.keeper = keeper
        self.kilograms = kilograms

    def __repr__(self):
        return "Row(%r, %r, %.2f)" % (self.hive, self.keeper, self.kilograms)


class Late(Row):
    def __init__(self, hive, keeper, kilograms, days):
        super(Late, self).__init__(hive, keeper, kilograms)
        self.days = days

    def __repr__(self):
        return "%s, %d days late" % (super(Late, self).__repr__(), self.days)


def read(path: str) -> List[Row]:
    rows: List[Row] = []
    with open(path, encoding="utf-8", newline="") as file:
        for entry in csv.DictReader(file):
            rows.append(Row(entry["hive"], entry["keeper"], float(entry["kilograms"])))
    return rows


def by_keeper(rows: List[Row]) -> Dict[str, float]:
    sums: Dict[str, float] = {}
    for row in rows:
        sums[row.keeper] = sums.get(row.keeper, 0.0) + row.kilograms
    return sums


def first(rows: List[Row], hive: str) -> Optional[Row]:
    for row in rows:
        if row.hive == hive:
            return row
    return None
