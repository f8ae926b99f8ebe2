#! target 3.8
#! run
class Crate:
    def __init__(self, full):
        self.full = full

    def __bool__(self):
        return self.full


def pick(crate):
    items = []
    if crate is None:
        crate = Crate(True)
    return crate


print(pick(None).full)
