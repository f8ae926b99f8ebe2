// === a local hides a field
class Hive { int size; //? size declares
  int Get() { int size = 1; return size; } //? size#2 reads 2
  int Own() { return size; } } //? size reads 1
// === a field behind a parameter of its name
class Hive { int size;
  void Set(int size) { this.size = size; } } //? size#2 means 1; size#3 reads 2
// === a property
class Hive { int Size { get; set; } //? Size declares
  int Twice() => Size * 2; } //? Size reads 1
// === value in a setter is no field
class Hive { string value;
  string Size {
    get { return value; } //? value reads 1
    set {
      size = value; //? value reads 4; value missing unknown; value escapes yes
      this.value = value; //? value writes 1; value#2 reads 4
      Later(() => { size = value; }); } } } //? value captures 4
// === a setter asks for its value, and gives it another one
class Hive { string Size {
    set {
      if (value == null) return;
      size = value; //? value missing no
      value = Next();
      size = value; } } } //? value missing unknown
// === the value of an accessor has its own name in what is inside
class Hive { int Size {
    set {
      foreach (var lid in lids) Later(value => {
        size = value; }); } } } //? value reads 3
// === value elsewhere is
class Hive { int value; int Get() { return value; } } //? value#2 reads 1
// === a property named like its type
class Lid { } //? Lid declares
class Jar { Lid Lid; //? Lid reads 1; Lid#2 declares
  Lid Make() { return Lid; } } //? Lid reads 1; Lid#2 reads 2
// === what is inherited cannot be told
class Box : Crate { int F() { return Width; } } //? Width is unknown
// === a partial class has members elsewhere
partial class Hive { int F() { return Width; } } //? Width is unknown
// === what may be inherited hides what is around
class Outer { static int n;
  class Inner : Base { int F() { return n; } } } //? n is unknown
// === nested classes see the outer one
class Outer { static int n;
  class Inner { int F() { return n; } } } //? n reads 1
// === lambdas capture
class A { void F(int n) { G(() => n); } } //? n#2 captures 1
// === lambda parameters
class A { int x; void F() { G(x => x); G((x, y) => x); H(x); } } //? x#2 declares; x#3 reads 1; x#4 declares; x#6 reads 1
// === local functions
class A { void F() { int n = 1; void Add() { n++; } Add(); } } //? n#2 captures 1; Add#2 reads 1
// === for
class A { int i; void F() { for (int i = 0; i < 3; i++) { } i = 1; } } //? i#2 declares; i#4 updates 1; i#5 writes 1
// === foreach: what it runs over is outside
class A { int[] jar; void F() { foreach (var j in jar) { G(j); } } } //? jar#2 reads 1; j#2 reads 1
// === catch
class A { void F() { try { } catch (Error e) { G(e); } } } //? e declares; e#2 reads 1; Error is outside
// === using declarations
class A { void F() { using var r = Open(); r.Read(); } } //? r declares; r#2 reads 1
// === out variables
class A { void F() { if (Try(out var n)) G(n); } } //? n declares; n#2 reads 1
// === ref and out arguments
class A { void F() { int n = 1; Fill(ref n); Fill(out n); Take(n); } } //? n#2 addresses 1; n#3 addresses 1; n#4 reads 1
// === pattern variables
class A { void F(object o) { if (o is string s && s.Length > 0) G(s); } } //? s declares; s#2 reads 1; s#3 reads 1
// === patterns name properties
class A { int Weight; void F(object o) { if (o is Jar { Weight: 1 } j) G(j); } } //? Weight#2 is unknown; j#2 reads 1
// === deconstruction
class A { void F() { var (a, b) = P(); (a, b) = (b, a); } } //? a declares; a#2 writes 1; b#3 reads 1
// === named arguments are no names
class A { void F(int side) { G(side: side); } } //? side#2 is unknown; side#3 reads 1
// === object initialisers name members
class A { int Size; void F() { var j = new Jar { Size = Size }; } } //? Size#2 is unknown; Size#3 reads 1
// === anonymous objects read
class A { void F(int n) { var o = new { n, Size = n }; } } //? n#2 reads 1; n#3 reads 1; Size is unknown
// === members of others
class A { int n; bool Same(A o) { return o.n == n; } } //? n#2 means 1; n#3 reads 1
// === members of objects that nothing declares
class A { int n; bool Same() { return Other().n == n; } } //? n#2 is unknown; n#3 reads 1
// === static members by class
class A { static int count; void F() { A.count++; } } //? count#2 means 1; A#2 reads 1
// === type parameters
class Box<T> { T item; U F<U>(U a) { return a; } } //? T#2 reads 1; U reads 1; U#3 reads 1
// === enum members
enum Colour { Gold, Amber = Gold } //? Gold declares; Gold#2 reads 1
class A { Colour c = Colour.Gold; } //? Gold means 1
// === nameof reads
class A { int n; string F() { return nameof(n); } } //? n#2 reads 1; nameof is outside
// === aliases
using Log = System.Diagnostics.Trace; //? Log declares
class A { void F() { Log.Write(); } } //? Log reads 1
// === queries
class A { object F(int[] all) { return from a in all let b = a where b > 1 select b; } } //? a declares; a#2 reads 1; b declares; b#3 reads 1
// === records
record Jar(int Weight) { int Twice() => Weight * 2; } //? Weight declares; Weight#2 reads 1
// === constructors name their class
class Hive { Hive() { } Hive Make() { return new Hive(); } } //? Hive#2 reads 1; Hive#4 reads 1
// === indexers
class A { int[] all; int this[int i] { get { return all[i]; } } } //? i#2 means 1; all#2 reads 1
// === events
class A { event Handler Opened; //? Opened declares
  void F() { Opened += G; } } //? Opened updates 1
// === goto labels are no names
class A { void F(int end) { goto end; end: G(end); } } //? end#2 reads 1
// === assigned on both ways
class A { int F(bool a) {
  int x;
  if (a) x = 1; else x = 2;
  return x; //? x assigned yes
} }
// === assigned by an out argument
class A { int F() {
  int x;
  Fill(out x);
  return x; //? x assigned unknown
} }
// === a switch expression
class A { int F(int a) {
  int x = a switch { 1 => 2, _ => throw new Error() };
  return x; //? x assigned yes
} }
// === a switch statement
class A { int F(int a) {
  int x;
  switch (a) { case 1: x = 1; break; default: x = 2; break; }
  return x; //? x assigned yes
} }
// === foreach may not run
class A { int F(int[] a) {
  int x;
  foreach (var i in a) { x = i; }
  return x; //? x assigned no
} }
// === assigned where missing
class A { void F(string a) {
  a ??= "x";
  a.Trim(); //? a missing no
} }
// === there after is not null
class A { void F(object a) {
  if (a is not null) { a.ToString(); } //? a#2 missing no
  if (a is null) { return; }
  a.ToString(); //? a missing no
} }
// === there after a type test
class A { void F(object a) {
  if (a is string) a.ToString(); //? a#2 missing no
} }
// === there after ==
class A { void F(object a) {
  if (a == null) throw new Error();
  a.ToString(); //? a missing no
} }
// === thrown in the middle of an expression
class A { void F(object a) {
  var b = a ?? throw new Error();
  a.ToString(); //? a missing no
} }
// === yield break leaves
class A { IEnumerable<int> F(bool a) {
  if (a) yield break; //? leaves yes
  yield return 1; //? leaves no
} }
// === finally runs
class A { void F() {
  Open();
  try {
    Work(); //? reaches 6
  } finally {
    Close();
  }
} }
// === throws
class A { void F() {
  int n = 1; //? throws no
  throw new Error(); //? throws yes
} }
// === changed by a local function
class A { int F() {
  int n = 1;
  void Set() { n = 2; }
  Set();
  return n; //? n changed since 2 unknown
} }
// === read later
class A { void F() {
  int n = 1; //? n after yes
  G(n);
  n = 2; //? n after no
} }
// === stored
class A { object held; void F() {
  var a = Make(); //? a escapes yes
  held = a;
} }
// === stays
class A { void F() {
  var a = Make(); //? a escapes no
  a.Close();
} }
// === unchanged
class A { int F() {
  int n = 1;
  G();
  return n; //? n unchanged since 2
} }
// === what a condition declares is seen behind it, and hides a field
class Yard { Hive lid; int n;
  void F(object o, string s) {
    if (!(o is Lid lid)) return;
    if (!int.TryParse(s, out var n)) return;
    Use(lid, n); } //? lid is unknown; n is unknown
  void G() { Use(lid, n); } } //? lid reads 1; n reads 1
// === and where there is no such field
class Yard {
  void F(object o) {
    if (!(o is Lid lid)) return;
    Use(lid); } } //? lid reads 3
