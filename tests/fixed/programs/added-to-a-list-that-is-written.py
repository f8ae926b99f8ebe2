#! target 3.8
#! run
import tempfile

kept = []


def read(path):
    files = []
    files += [open(path)]
    line = files[0].readline()
    files[0].close()
    return line


print(repr(read(tempfile.mkstemp()[1])))
