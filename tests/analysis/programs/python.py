# === assignment makes a local
hive = 1
def f():
    hive = 2  #? hive declares
    return hive  #? hive reads 3
# === a name that is assigned later is local all the same
hive = 1
def f():
    print(hive)  #? hive reads 4
    hive = 2
# === global
count = 0
def add():
    global count
    count += 1  #? count updates 1
# === nonlocal
def outer():
    count = 0
    def add():
        nonlocal count
        count += 1  #? count captures 2
    return count  #? count reads 2
# === blocks are no scopes
def f(a):
    if a:
        jar = 1
    return jar  #? jar reads 3; jar assigned no
# === comprehensions are scopes
x = 1
ys = [x for x in list_of]  #? x#2 declares; x reads 2
x  #? x reads 1
# === what a comprehension runs over is outside of it
x = [1]
ys = [x for x in x]  #? x#3 reads 1
# === := in a comprehension binds around it
def f(items):
    [last := i for i in items]
    return last  #? last reads 2
# === class names are not seen in methods
size = 1
class Hive:
    size = 2  #? size declares
    def get(self):
        return size  #? size reads 1
    half = size  #? size reads 3
# === self reaches the class
class Hive:
    def open(self):
        self.close()  #? close means 4
    def close(self):  #? close declares
        pass
# === attributes declared by assignment
class Hive:
    def __init__(self):
        self.weight = 0  #? weight declares
    def get(self):
        return self.weight  #? weight means 3
# === attributes of others are unknown
class Hive:
    def same(self, other):
        return other.weight  #? weight is unknown
# === a static method has no self
class Hive:
    size = 1
    @staticmethod
    def get(self):
        return self.size  #? size is unknown
# === default values are outside
x = 1
def f(x=x):  #? x#2 reads 1
    return x  #? x reads 2
# === a lambda's parameters
y = 1
g = lambda y: y  #? y declares; y#2 reads 2
y  #? y reads 1
# === keyword names are no variables
side = 1
f(side=side)  #? side is unknown; side#2 reads 1
# === import binds the first part
import hives.boxes  #? hives declares
hives.boxes.count()  #? hives reads 1
# === import as
import hives.boxes as boxes  #? boxes declares
boxes  #? boxes reads 1
# === from import
from hives import box, lid as top  #? box declares; top declares
box(top)  #? box reads 1; top reads 1
# === except binds
try:
    f()
except OSError as problem:  #? problem declares; OSError is outside
    problem  #? problem reads 3
# === with binds
with open(p) as (a, b):  #? a declares; b declares
    a  #? a reads 1
# === for binds and stays
for item in items:  #? item declares
    pass
item  #? item reads 1
# === unpacking binds
a, (b, *c) = f()  #? a declares; b declares; c declares
c  #? c reads 1
# === del needs a value and takes it away
a = 1
del a  #? a updates 1
# === augmented assignment makes a local
n = 0
def f():
    n += 1  #? n updates 3
# === match captures
match thing:
    case Point(x=0, y=low): low  #? low declares; low#2 reads 2; y is unknown
    case [first, *others]: others  #? others#2 reads 3
    case str() as text: text  #? text#2 reads 4; str is outside
    case Colour.RED: pass  #? Colour is outside
# === decorators are outside of the function
def mark(f): return f
@mark  #? mark reads 1
def f(): pass
# === a function sees itself
def f():
    return f()  #? f reads 1
# === closures see later assignments
def f():
    def g():
        return x  #? x captures 4
    x = 1
    return g
# === comprehensions in a class do not see its names
class Hive:
    side = 1
    sides = [side for i in range(2)]  #? side is outside
    firsts = [i for i in [side]]  #? side reads 2
# === annotations declare
def f():
    x: int
    return x  #? x reads 2; x assigned unknown
# === parameters are assigned
def f(x, *rest, key=1, **more):
    return x, rest, key, more  #? x assigned yes; rest assigned yes; more assigned yes
# === f-strings read
jar = 1
print(f"{jar} of {jar!r:>{jar}}")  #? jar reads 1; jar#3 reads 1
# === assigned on both ways
def f(a):
    if a:
        x = 1
    else:
        x = 2
    return x  #? x assigned yes
# === elif without else
def f(a, b):
    if a:
        x = 1
    elif b:
        x = 2
    return x  #? x assigned no
# === raise leaves
def f(a):
    if a:
        x = 1
    else:
        raise ValueError
    return x  #? x assigned yes
# === with may swallow
def f():
    with swallow():
        x = g()
    return x  #? x assigned no
# === else of a loop
def f(items):
    for i in items:
        if i:
            break
    else:
        return 1
    return i  #? i assigned yes
# === try with else
def f():
    try:
        x = g()
    except OSError:
        return None
    else:
        y = 1
    return x, y  #? x assigned yes; y assigned yes
# === finally
def f():
    open_it()
    try:
        g()  #? reaches 6
    finally:
        close_it()
# === leaving in a handler
def f():
    try:
        g()
    except OSError:
        return 1  #? leaves yes
    return 2
# === what throws
def f(x):
    y = 1  #? throws no
    raise x  #? throws yes
# === calls may throw
def f(x):
    g(x)  #? throws unknown
# === unchanged
def f(items):
    n = len(items)
    for i in range(3):
        g(i)
    return n  #? n unchanged since 2
# === changed in a loop
def f(items):
    n = 0
    for i in items:
        n = n + 1  #? n#2 changed since 2 yes
    return n
# === changed by a nested function
def f():
    n = 0
    def add():
        nonlocal n
        n = 1
    add()
    return n  #? n changed since 2 unknown
# === there after is not None
def f(x):
    if x is not None:
        return x.y  #? x missing no
    return x  #? x missing yes
# === there after an early return
def f(x):
    if not x:
        return
    x.y  #? x missing no
# === there after or
def f(x):
    if x is None or x.y:  #? x#2 missing no
        pass
# === a conditional expression
def f(x):
    return x.y if x else x  #? x missing no; x#3 missing unknown
# === isinstance
def f(x):
    if isinstance(x, str):
        return x.strip()  #? x missing no
# === made here, set to None on one way
def f(a):
    x = []
    if a:
        x = None
    return x  #? x missing yes
# === assert
def f(x):
    assert x is not None
    return x  #? x missing unknown
# === read after
def f():
    x = 1  #? x after yes
    print(x)
    x = 2  #? x after no
# === escapes by yield
def f():
    x = make()  #? x escapes yes
    yield x
# === escapes into a list
def f(items):
    x = make()  #? x escapes yes
    items[0] = x
# === stays
def f():
    x = make()  #? x escapes no
    x.close()
