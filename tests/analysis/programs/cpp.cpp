// === a block hides
int f() { int n = 1; //? n declares
  { int n = 2; n; } //? n#2 reads 2
  return n; } //? n reads 1
// === before its declaration a name means the one around
int n = 1;
int f() { n = 2; int n = 3; return n; } //? n writes 1; n#3 reads 2
// === a for loop's variable
int i = 0;
int f() { for (int i = 0; i < 3; ++i) {} return i; } //? i#2 reads 2; i#4 reads 1
// === members without this
class Hive { int size; //? size declares
  int get() { return size; } }; //? size reads 1
// === members are seen before they are declared
class Hive { int get() { return late; } //? late reads 2
  int late; };
// === a local hides a member
class Hive { int size;
  int get(int size) { return size + this->size; } }; //? size#2 reads 2; size#3 means 1
// === inherited members cannot be told
class Box : public Crate { int get() { return width; } }; //? width is unknown
// === what may be inherited hides what is around
int n = 0;
class Box : Base { int get() { return n; } }; //? n is unknown
// === a function defined outside of its class
class Hive { int size; int get(); };
int Hive::get() { return size; } //? size reads 1; get means 1
// === a function of a class in another file
int n = 0;
int Elsewhere::get() { return n; } //? n is unknown
// === parameters of a prototype are seen nowhere else
int f(int jar);
int g() { return jar; } //? jar is outside
// === parameters
int f(int a, const int &b, int *c, int d[3]) { return a + b + *c + d[0]; } //? a#2 reads 1; b#2 reads 1; c#2 reads 1; d#2 reads 1
// === a function pointer as a parameter
int f(int (*call)(int)) { return call(1); } //? call#2 reads 1
// === the name of a function is outside of it
int size(int a) { return size(a); } //? size#2 reads 1
// === address taken and value read through it
int f() { int x = 1; int *p = &x; *p = 2; return x; } //? x#2 addresses 1; p#2 reads 1
// === passed on, perhaps by reference
void f() { int x = 1; g(x); } //? x#2 passes 1
// === bound to a reference
void f() { int x = 1; int &r = x; r = 2; } //? x#2 addresses 1
// === streams fill
void f() { int x; std::cin >> x; } //? x#2 passes 1
// === a member of a value is written
void f() { Point p; p.x = 1; p.go(); } //? p#2 updates 1; p#3 passes 1
// === a member behind a pointer is written
void f(Point *p) { p->x = 1; p->go(); } //? p#2 reads 1; p#3 reads 1
// === items are written
void f() { int a[3]; a[0] = 1; } //? a#2 updates 1
// === a lambda captures
void f() { int x = 1; auto g = [&x] { x++; }; } //? x#2 captures 1; x#3 captures 1
// === a lambda's own variable
void f() { int x = 1; auto g = [y = x] { return y; }; } //? y declares; x#2 reads 1; y#2 reads 1
// === range for: what it runs over is outside
void f() { std::vector<int> v; for (auto &v : v) { g(v); } } //? v#3 passes 1; v#4 passes 1
// === structured bindings
void f() { auto [a, b] = g(); h(a + b); } //? a declares; b#2 reads 1
// === variables of conditions
void f() { if (int k = g(); k > 0) { h(k + 1); } } //? k declares; k#2 reads 1; k#3 reads 1
// === catch
void f() { try { g(); } catch (const Error &e) { h(e.what()); } } //? e declares; e#2 passes 1
// === namespaces
namespace yard { int hive; } //? hive declares
void f() { yard::hive = 1; } //? yard reads 1; hive means 1
// === a namespace opened twice
namespace yard { int hive; }
namespace yard { int twice() { return hive * 2; } } //? hive reads 1
// === a namespace's names outside of it
namespace yard { int hive; }
void f() { hive; } //? hive is unknown
// === enumerators are seen around
enum Colour { gold, amber }; //? gold declares
int c = gold; //? gold reads 1
// === enumerators of a scoped enum are not
enum class Colour { gold, amber };
int c = gold; //? gold is outside
int d = Colour::gold; //? gold means 1
// === template parameters
template <typename T> T f(T a) { return a; } //? T declares; T#2 reads 1; T#3 reads 1
T x; //? T is outside
// === type names
using Weight = double; //? Weight declares
typedef int Count; //? Count declares
Weight f(Count c); //? Weight reads 1; Count reads 2
// === macros hide uses
#define TWICE(x) (count + x)
void f() { int count = 1; } //? count declares
// === initialisers of members
class Hive { int size; Hive(int n) : size(n) {} }; //? size#2 writes 1; n#2 passes 1
// === constructors name their class
class Hive { Hive(); Hive *next; }; //? Hive#2 reads 1; Hive#3 reads 1
// === labels are no names
void f(int out) { goto done; done: g(out + 1); } //? out#2 reads 1
// === a goto is not followed
int f(bool a) {
  int x;
  if (a) goto end;
  x = 1;
  end: return x; //? x assigned unknown
}
// === assigned on both ways
int f(bool a) {
  int x;
  if (a) { x = 1; } else { x = 2; }
  return x; //? x assigned yes
}
// === switch without default
int f(int a) {
  int x;
  switch (a) { case 1: x = 1; break; case 2: x = 2; break; }
  return x; //? x assigned no
}
// === assigned after throw
int f(bool a) {
  int x;
  if (a) x = 1; else throw a;
  return x; //? x assigned yes
}
// === exit does not come back
int f(bool a) {
  int x;
  if (a) x = 1; else exit(1);
  return x; //? x assigned yes
}
// === left early
void f(int *p) {
  if (!p) return; //? leaves yes
  g(p); //? leaves no; throws unknown
}
// === reached on every way
void f(int *p) {
  int n = 1; //? reaches 4
  n = n + 2;
  n = 3;
}
// === a call may throw past the release
void f() {
  Handle *h = open(); //? reaches 4: no
  work(h);
  close(h);
}
// === there after a test
void f(Hive *h) {
  if (h) h->open(); //? h#2 missing no
  h = nullptr;
  g(h); //? h missing yes
}
// === there after nullptr test
void f(Hive *h) {
  if (h == nullptr) return;
  h->open(); //? h missing no
}
// === a read says nothing in C++
void f(Hive *h) {
  h->open();
  h->close(); //? h missing unknown
}
// === new never gives nothing
void f() {
  Hive *h = new Hive(); //? h after yes
  h->open(); //? h missing no
}
// === unchanged
int f() {
  int n = 1;
  g();
  return n; //? n unchanged since 2
}
// === changed through its address
int f() {
  int n = 1;
  g(&n);
  return n; //? n changed since 2 unknown
}
// === escapes by return
Hive *f() {
  Hive *h = make(); //? h escapes yes
  return h;
}
// === stored in a member
void Yard::add() {
  Hive *h = make(); //? h escapes yes
  first_ = h;
}
// === a function of one's own that is called exit
void exit(int code) {}
int f(bool a) {
  int x;
  if (a) x = 1; else exit(1);
  return x; //? x assigned no
}
