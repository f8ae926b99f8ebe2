#! target 3.8
#! run
# A guess about one line of a block made the change of the whole block a guess.
import os
import tempfile

PATH = os.path.join(tempfile.mkdtemp(), "wax.txt")


def write(lines):
    f = open(PATH, "w") #! certain python/scoped-resource
    for line in lines:
        f.write(line + "\n") #! held: a surer change is made around it
    f.close()


write(["a", "b"])
with open(PATH) as f:
    print(f.read())
