def read(path, default=None):
    with open(path) as f:

        # all of it
        text = f.read()  # as it is
    result = text or default
    return result