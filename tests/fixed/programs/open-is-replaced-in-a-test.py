#! target 3.8
#! run
from unittest.mock import patch


def replaced():
    @patch(f"{__name__}.open", create=True)
    def inner(mock):
        mock.return_value.read.return_value = "abcd"
        f = open("none.txt")
        data = f.read()
        f.close()
        return data

    return inner()


def ordinary(path):
    f = open(path) #! likely
    data = f.read()
    f.close()
    return data


print(replaced())
