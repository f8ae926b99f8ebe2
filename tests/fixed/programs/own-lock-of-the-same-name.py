#! target 3.8
#! run
class Lock:
    def acquire(self):
        print("taken")

    def release(self):
        print("given")

    def __enter__(self):
        print("entered")

    def __exit__(self, *why):
        print("left")


gate = Lock()


def work():
    gate.acquire() #! possible
    try:
        print("work")
    finally:
        gate.release()


work()
