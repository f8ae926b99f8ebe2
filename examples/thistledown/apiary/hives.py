"""Hives and what is written on their lids."""
import os.path as paths


class Hive:
    def __init__(self, name, frames=None, queen=None, note=''):
        if frames is None:
            frames = 10
        self.name = name
        self.frames = frames
        self.queen = queen
        self.note = note
        self.supers = []

    def queen_name(self):
        # a hive without a queen is named after its keeper
        if self.queen is not None:
            name = self.queen
        else:
            name = "no queen"
        return name

    def add_supers(self, weights):
        for i in range(len(weights)):
            self.supers.append((i, weights[i]))

    def lid(self):
        if self.note:
            text = self.note
        else:
            text = '-'
        return "%s: %s" % (self.name, text)


def read_hives(folder):
    """One hive a line: name; frames; queen; note."""
    f = open(paths.join(folder, 'hives.txt'), encoding="utf-8")  # kept by hand
    # the first line is the heading
    lines = f.readlines()[1:]

    hives = []
    for line in lines:
        fields = [field.strip() for field in line.split(';')]
        hives.append(make_hive(fields))
    f.close()
    return hives


def make_hive(fields):
    for i in range(len(fields)):
        if fields[i] == '':
            fields[i] = None       # empty means not known
    name, frames, queen, note = fields
    return Hive(name, int(frames) if frames else None, queen, note)
