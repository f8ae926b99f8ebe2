def read(path, default=None):
    f = open(path)

    # all of it
    text = f.read()  # as it is

    f.close()
    if text:
        result = text
    else:
        result = default
    return result