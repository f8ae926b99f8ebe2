"""combwork 1.4: hives, frames, and what happens to them."""

MAX_FRAMES = 10


class Frame:
    def __init__(self, kind, grams):
        self.kind = kind
        self.grams = grams


class Hive:
    def __init__(self, name, size):
        self.name = name
        self.size = size
        self.frames = []
        self._handlers = {}

    def add(self, frame):
        self.frames.append(frame)

    @property
    def mass(self):
        return sum(frame.grams for frame in self.frames)

    def weigh(self, tare, unit):
        grams = self.mass - tare
        return grams / 1000 if unit == "kg" else grams

    def on(self, event, handler):
        self._handlers.setdefault(event, []).append(handler)

    def split(self):
        half = len(self.frames) // 2
        self.frames = self.frames[:half]
        for handler in self._handlers.get("swarm", []):
            handler(self)


def open_hive(name, size):
    return Hive(name, size)


def count_frames(hives):
    return sum(len(hive.frames) for hive in hives)


def names(hives):
    return [hive.name for hive in hives]


def drain(hive):
    honey, hive.frames = hive.mass, []
    return honey
