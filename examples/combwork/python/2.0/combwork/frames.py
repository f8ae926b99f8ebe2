"""Frames, which have a module of their own since 2.0."""


class Frame:
    def __init__(self, kind, grams):
        self.kind = kind
        self.grams = grams
