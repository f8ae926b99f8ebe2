// === a block hides the name around it
let hive = 1; //? hive declares
{ let hive = 2; hive; } //? hive#2 reads 2
hive; //? hive reads 1
// === var belongs to the function
function f() { //? f declares
  if (a) { var jar = 1; } //? jar writes 2
  return jar; //? jar reads 2
}
// === a loop has its own let for each turn
for (let i = 0; i < 3; i++) {} //? i#2 reads 1; i#3 updates 1
i; //? i is outside
// === var of a loop is seen behind it
for (var k of list) {} //? k writes 1
k; //? k reads 1
// === a closure captures
let count = 0;
const add = () => { count += 1; }; //? count updates 1
// === a parameter hides
let lot = 1;
function g(lot) { return lot; } //? lot declares; lot#2 reads 2
// === default values see parameters, not locals
let size = 1;
function h(a = size) { var size = 2; return size; } //? size reads 1; size#3 reads 2
// === an expression's own name
const run = function inner() { inner(); }; //? inner#2 reads 1
inner; //? inner is outside
// === functions are hoisted
start(); //? start reads 2
function start() {}
// === destructuring declares
const { queen, frame: side, ...rest } = hive; //? queen declares; side declares; rest declares; frame is unknown
side; //? side reads 1
// === destructuring assigns
let top, left;
({ top, left: left } = box); //? top writes 1; left#2 writes 1
[top, box.side] = pair; //? top writes 1; box is outside
// === shorthand reads
const weight = 1;
const lid = { weight }; //? weight reads 1
// === a property is no variable
const name = 1;
jar.name = 2; //? name is unknown
// === catch has its own name
const e = 1;
try { f(); } catch (e) { e; } //? e#2 reads 2
e; //? e reads 1
// === a catch with a pattern
try { f(); } catch ({ message }) { message; } //? message#2 reads 1
// === classes see their own name
class Hive { static make() { return new Hive(); } } //? Hive declares; Hive#2 reads 1
// === a field through this
class Box {
  #lid = 1; //? #lid declares
  open() { return this.#lid; } //? #lid reads 2
}
// === a method through this
class Bee {
  fly() { this.land(); } //? land means 3
  land() {} //? land declares
}
// === this of an inner function is another
class Comb {
  wax() { list.map(function () { return this.cell; }); } //? cell is unknown
  cell() {}
}
// === imports and what they are called here
import smoke, { veil as mask } from "./tools.js"; //? smoke declares; mask declares
mask(smoke); //? mask reads 1; smoke reads 1
// === exports read
const honey = 1;
export { honey as gold }; //? honey reads 1
// === a label is no variable
const next = 1;
next: for (;;) { break next; }
next; //? next reads 1
// === with makes names unknown
let wax = 1;
with (box) { wax; } //? wax is unknown
// === switch is one block
switch (a) {
  case 1: let lot; break; //? lot declares
  case 2: lot; //? lot reads 2
}
// === assigned on both ways
function f(a) {
  let x;
  if (a) x = 1;
  else x = 2;
  return x; //? x assigned yes
}
// === assigned on one way only
function f(a) {
  let x;
  if (a) x = 1;
  return x; //? x assigned no
}
// === a loop may not run
function f(list) {
  let x;
  for (const item of list) x = item;
  return x; //? x assigned no
}
// === the other way throws
function f(a) {
  let x;
  if (a) x = 1;
  else throw a;
  return x; //? x assigned yes
}
// === assigned in try, read in catch
function f() {
  let x;
  try { g(); x = 1; }
  catch { return x; } //? x assigned no
  return x; //? x assigned yes
}
// === finally runs on every way
function f() {
  open();
  try {
    g(); //? reaches 6
  } finally {
    close();
  }
}
// === an early return passes the end by
function f(a) {
  open(); //? reaches 4: no
  if (a) return;
  close();
}
// === an exception passes the end by
function f() {
  const jar = 1; //? reaches 4: no
  g();
  jar.close;
}
// === left early
function f(a) {
  if (a) return 1; //? leaves yes
  for (;;) { break; } //? leaves no
}
// === a break that stays inside
function f(list) {
  for (const a of list) { if (a) break; g(a); } //? leaves no; throws unknown
}
// === what throws
function f(a) {
  throw a; //? throws yes
}
// === what cannot throw
function f(a) {
  let x = 1; //? throws no
  g(); //? throws unknown
}
// === caught inside
function f() {
  try { throw 1; } catch { } //? throws no
}
// === unchanged between
function f() {
  let x = 1;
  g();
  return x; //? x unchanged since 2
}
// === changed in between on one way
function f(a) {
  let x = 1;
  if (a) x = 2;
  return x; //? x changed since 2 yes
}
// === changed by a closure
function f() {
  let x = 1;
  const set = () => { x = 2; };
  set();
  return x; //? x changed since 2 unknown
}
// === short circuits
function f(a) {
  let x;
  a && (x = 1);
  return x; //? x assigned no
}
// === both sides of a test
function f(a) {
  let x;
  if (a && (x = a.b)) return x; //? x#2 assigned yes
  return x; //? x assigned no
}
// === an optional chain may stop
function f(a) {
  let x;
  a?.b(x = 1);
  return x; //? x assigned no
}
// === there after a test
function f(a) {
  if (a != null) return a.b; //? a missing unknown; a#2 missing no
  return a; //? a missing yes
}
// === there after leaving where it is missing
function f(a) {
  if (!a) return;
  a.b(); //? a missing no
}
// === strict tests tell only one missing value
function f(a) {
  if (a !== null) a.b; //? a#2 missing unknown
}
// === a test that was overtaken
function f(a) {
  if (a == null) return;
  a = g();
  a.b; //? a missing unknown
}
// === made here
function f() {
  const list = [];
  list.push(1); //? list missing no; list escapes no
  return list.length;
}
// === read later
function f() {
  let x = 1; //? x after yes
  g(x);
  x = 2; //? x after no
}
// === read in the next turn
function f(list) {
  let last;
  for (const item of list) {
    g(last);
    last = item; //? last after yes
  }
}
// === returned
function f() {
  const jar = make(); //? jar escapes yes
  return jar;
}
// === stored
function f() {
  const jar = make(); //? jar escapes yes
  shelf.jar = jar;
}
// === captured
function f() {
  const jar = make(); //? jar escapes yes
  return () => jar.size;
}
// === passed on
function f() {
  const jar = make(); //? jar escapes unknown
  weigh(jar);
}
// === used on the spot
function f() {
  const jar = make(); //? jar escapes no
  jar.close();
  return jar.size + 1;
}
// === a closure captures a local
function f() {
  let n = 0;
  return () => { n += 1; }; //? n captures 2
}
