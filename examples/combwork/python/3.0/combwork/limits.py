"""What a hive can hold."""


class Limits:
    FRAMES = 10
