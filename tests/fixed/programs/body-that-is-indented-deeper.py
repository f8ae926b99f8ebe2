#! target 3.8
#! run
import threading
gate = threading.Lock()
def work(items):
        gate.acquire() #! certain python/scoped-lock
        try:
                items.append(1)
        finally:
                gate.release()
        return items
class Deep:
   def take(self, path):
          handle = open(path) #! certain python/scoped-resource
          try:
             return handle.read()
          finally:
             handle.close()
print(work([]))
