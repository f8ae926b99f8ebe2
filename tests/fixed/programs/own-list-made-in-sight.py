#! target 3.8
#! run
class Doubled(list):
    def __getitem__(self, at):
        return list.__getitem__(self, at) * 2


def own():
    items = Doubled([1, 2])
    for i in range(len(items)): #! likely
        print(items[i])


def plain():
    items = [1, 2]
    for i in range(len(items)): #! certain
        print(items[i])


own()
plain()
