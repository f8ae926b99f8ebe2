"""combwork 3.0: a hive with bees in it is a colony."""

from .limits import Limits

__all__ = ["Colony", "Limits", "frame_count", "names", "open_hive"]


class Colony:
    def __init__(self, name, size):
        self.name = name
        self.size = size
        self.frames = []
        self._handlers = {}

    def add(self, frame):
        self.frames.append(frame)

    def mass(self):
        return sum(frame.grams for frame in self.frames)

    def weight_in(self, unit, tare):
        grams = self.mass() - tare
        return grams / 1000 if unit == "kg" else grams

    def on(self, event, handler):
        if event not in ("swarmed",):
            raise ValueError(f"a colony knows no event {event!r}")
        self._handlers.setdefault(event, []).append(handler)

    def split(self):
        half = len(self.frames) // 2
        self.frames = self.frames[:half]
        for handler in self._handlers.get("swarmed", []):
            handler(self)


def open_hive(name, *, frames):
    return Colony(name, frames)


def frame_count(hives):
    return sum(len(hive.frames) for hive in hives)


def names(hives):
    return (hive.name for hive in hives)
