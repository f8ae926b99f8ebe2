"""combwork 2.0: frames have a module of their own, and hives are opened by keyword."""

from .limits import Limits

__all__ = ["Hive", "Limits", "drain", "frame_count", "names", "open_hive"]


class Hive:
    def __init__(self, name, size):
        self.name = name
        self.size = size
        self.frames = []
        self._handlers = {}

    def add(self, frame):
        self.frames.append(frame)

    def mass(self):
        return sum(frame.grams for frame in self.frames)

    def weigh(self, tare, unit):
        grams = self.mass() - tare
        return grams / 1000 if unit == "kg" else grams

    def on(self, event, handler):
        self._handlers.setdefault(event, []).append(handler)

    def split(self):
        half = len(self.frames) // 2
        self.frames = self.frames[:half]
        for handler in self._handlers.get("swarm", []):
            handler(self)


def open_hive(name, *, frames):
    return Hive(name, frames)


def frame_count(hives):
    return sum(len(hive.frames) for hive in hives)


def names(hives):
    return (hive.name for hive in hives)


def drain(hive):
    honey, hive.frames = hive.mass(), []
    return honey
