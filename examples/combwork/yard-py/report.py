"""Lines about hives."""

from typing import Iterator, List

from combwork import Hive


def line(hive: Hive) -> str:
    return f"{hive.name}: {hive.mass} g, {hive.weigh(500, 'kg'):.2f} kg without the box"


def report(hives: List[Hive]) -> Iterator[str]:
    for hive in hives:
        yield line(hive)
