// === a local hides a field
class Hive { int size; //? size declares
  int get() { int size = 1; return size; } //? size#2 reads 2
  int own() { return size; } //? size reads 1
}
// === a field behind a local of its name
class Hive { int size;
  void set(int size) { this.size = size; } //? size#2 means 1; size#3 reads 2
}
// === before its declaration a name means the field
class Hive { int n;
  void f() { n = 1; int n = 2; n = 3; } //? n writes 1; n#3 writes 2
}
// === fields are seen before they are declared
class Hive { int get() { return late; } //? late reads 2
  int late;
}
// === a method and a field of one name
class Hive { int size; //? size declares
  int size() { return size; } //? size declares; size#2 reads 1
  int twice() { return size() * 2; } //? size reads 2
}
// === a type and a variable of one name
class Lid { //? Lid declares
  void f(Lid Lid) { Lid x = Lid; } //? Lid reads 1; Lid#3 reads 1; Lid#4 reads 2
}
// === what is inherited cannot be told
class Box extends Crate { int f() { return width; } } //? width is unknown
// === what may be inherited hides what is around
class Outer { int n;
  class Inner extends Base { int f() { return n; } } //? n is unknown
}
// === an inner class sees its outer one
class Outer { int n;
  class Inner { int f() { return n; } } //? n reads 1
}
// === an anonymous class may inherit
class Hive { int n;
  Runnable r = new Runnable() { public void run() { n++; } }; //? n is unknown
}
// === a lambda captures
class Hive { void f(int n) { Runnable r = () -> g(n); } } //? n#2 captures 1
// === lambda parameters
class Hive { int x; Object f = (x) -> x; //? x#3 reads 1; x#2 declares
  Object g = x -> x + 1; //? x declares; x#2 reads 2
}
// === for loops
class Hive { int i;
  void f() { for (int i = 0; i < 3; i++) { } i = 1; } //? i#3 updates 2; i#4 writes 1
}
// === enhanced for: what it runs over is outside
class Hive { int[] jar;
  void f() { for (int[] jar : jar) { g(jar); } } //? jar#3 reads 2
}
// === catch
class Hive { Exception e;
  void f() { try { g(); } catch (Exception e) { h(e); } i(e); } //? e#2 reads 2; e#3 reads 1
}
// === resources are not seen in catch
class Hive { Reader in;
  void f() { try (Reader in = open()) { in.read(); } finally { in.close(); } } //? in#2 reads 2; in#3 reads 1
}
// === pattern variables
class Hive { void f(Object o) { if (o instanceof String s && s.isEmpty()) g(s); } } //? s declares; s#2 reads 1; s#3 reads 1
// === a pattern variable beside a field of its name
class Hive { String s;
  void f(Object o) { if (o instanceof String s) { g(s); } else { g(s); } } //? s#3 is unknown
}
// === static members by class
class Hive { static int count; //? count declares
  void f() { Hive.count++; } //? count means 1; Hive reads 1
}
// === members of others, by the class that they are declared to be of
class Hive { int n; boolean same(Hive o) { return o.n == n; } } //? n#2 means 1; n#3 reads 1
// === members of objects that nothing declares
class Hive { int n; boolean same() { return other().n == n; } } //? n#2 is unknown; n#3 reads 1
// === method references
class Hive { void go() { run(this::open); } //? open means 2
  void open() {}
}
// === enum constants
enum Colour { GOLD, AMBER; //? GOLD declares
  boolean dark() { return this == AMBER; } //? AMBER reads 1
}
// === case labels
class Hive { static final int ONE = 1;
  void f(int a) { switch (a) { case ONE: break; } } //? ONE is unknown
}
// === records
record Jar(int weight) { int twice() { return weight * 2; } } //? weight declares; weight#2 reads 1
// === type parameters
class Box<T> { T item; <T> T f(T a) { return a; } } //? T#2 reads 1; T#4 reads 1
T x; //? T is outside
// === labels are no names
class Hive { void f(int out) { out: for (;;) break out; g(out); } } //? out#2 reads 1
// === imports
import java.util.List; //? List declares
class Hive { List<String> all; } //? List reads 1
// === static imports
import static java.lang.Math.max; //? max declares
class Hive { int f() { return max(1, 2); } } //? max reads 1
// === annotations name types
import org.hives.Mark;
@Mark(value = 1) class Hive { int value; } //? Mark reads 1; value declares
// === local classes
class Hive { void f() { class Local { } new Local(); } } //? Local#2 reads 1
// === constructors name their class
class Hive { Hive() { } Hive make() { return new Hive(); } } //? Hive#2 reads 1; Hive#4 reads 1
// === interface constants may be inherited
class Hive implements Limits { int f() { return MAX; } } //? MAX is unknown
// === blocks of a switch
class Hive { void f(int a) { switch (a) { case 1: int n = 1; break; default: n = 2; } } } //? n#2 writes 1
// === overloads are one name
class Hive {
  void f(int a) {} //? f declares
  void f(String a) {} //? f means 2
}
// === assigned on all ways of a switch
class A { int f(int a) {
  int x;
  switch (a) { case 1: x = 1; break; default: x = 2; }
  return x; //? x assigned yes
} }
// === a switch that gives a value
class A { int f(int a) {
  int x = switch (a) { case 1 -> { yield 3; } default -> 4; };
  return x; //? x assigned yes; x unchanged since 2
} }
// === assigned in a loop
class A { int f(int[] a) {
  int x;
  for (int i : a) x = i;
  return x; //? x assigned no
} }
// === while true
class A { int f() {
  int x;
  while (true) { x = 1; break; }
  return x; //? x assigned yes
} }
// === finally runs
class A { void f() {
  open();
  try {
    work(); //? reaches 6
  } finally {
    close();
  }
} }
// === an exception gets past
class A { void f() {
  int a = 1; //? reaches 4: no
  work();
  close();
} }
// === return in the middle
class A { void f(boolean a) {
  if (a) return; //? leaves yes
  if (a) { work(); } //? leaves no
} }
// === thrown and caught
class A { void f() {
  throw new Error(); //? throws yes
} }
// === a nested loop's continue
class A { void f(int[] a) {
  outer: for (int i : a) { for (int j : a) { if (j > i) continue outer; } } //? leaves no
} }
// === there after a test
class A { void f(String a) {
  if (a != null) a.trim(); //? a#2 missing no
  a.trim(); //? a missing yes
} }
// === there after a call
class A { void f(String a) {
  a.trim();
  a.trim(); //? a missing no
} }
// === there after leaving
class A { void f(String a) {
  if (a == null) throw new Error();
  a.trim(); //? a missing no
} }
// === instanceof
class A { void f(Object a) {
  if (a instanceof String) a.toString(); //? a#2 missing no
} }
// === Objects.nonNull
class A { void f(Object a) {
  if (Objects.nonNull(a) && a.x) a.toString(); //? a#2 missing no; a#3 missing no
} }
// === created
class A { void f() {
  Object a = new Object(); //? a escapes no
  a.toString(); //? a missing no
} }
// === set to null on one way
class A { void f(boolean b) {
  Object a = new Object();
  if (b) a = null;
  a.toString(); //? a missing yes
} }
// === escapes
class A { Object held; Object f() {
  Object a = make(); //? a escapes yes
  held = a;
  return null;
} }
// === unchanged by a call
class A { int f(int a) {
  int n = a;
  g();
  return n; //? n unchanged since 2
} }
// === changed in a loop
class A { int f(int[] a) {
  int n = 0;
  for (int i : a) { n += i; }
  return n; //? n changed since 2 yes
} }
// === read later
class A { void f() {
  int n = 1; //? n after yes
  g(n);
  n = 2; //? n after no
} }
// === passed on
class A { void f() {
  Object a = make(); //? a escapes unknown
  keep(a);
} }
// === what a condition binds is seen behind it, and hides a field
class Yard { Hive lid;
  void f(Object o) {
    if (!(o instanceof Lid lid)) return;
    use(lid); } //? lid is unknown
  void g() { use(lid); } } //? lid reads 1
// === a loop that ends when its condition does not hold binds what follows
class Yard { Hive lid;
  void f() {
    while (!(next() instanceof Lid lid)) { skip(); }
    use(lid); } } //? lid is unknown
