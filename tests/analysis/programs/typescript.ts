// === a type and a variable are two things
type Hive = string; //? Hive declares
const x: Hive = Hive1; //? Hive reads 1
// === an interface and a constant of one name are one thing
interface Jar { lid: number; } //? Jar declares
const Jar = 1; //? Jar declares; Jar means 1
let a: Jar; //? Jar means 1
// === a type parameter hides a type
type T = string;
function f<T>(a: T): T { return a; } //? T#2 reads 2; T#3 reads 2
let b: T; //? T reads 1
// === a type parameter of a class
class Box<Item> { lid!: Item; } //? Item#2 reads 1
let c: Item; //? Item is outside
// === an enum is a value and a type
enum Colour { Gold, Amber = Gold, } //? Colour declares; Gold#2 reads 1
let d: Colour = Colour.Amber; //? Colour reads 1; Colour#2 reads 1; Amber means 1
// === a namespace
namespace Apiary { export const size = 1; } //? Apiary declares; size declares
Apiary.size; //? Apiary reads 1; size means 1
size; //? size is outside
// === a namespace opened twice
namespace Yard {
  export const hive = 1;
}
namespace Yard { export const twice = hive * 2; } //? hive reads 2
// === a parameter that is a field
class Frame {
  constructor(private readonly side: number) { side; } //? side declares; side#2 reads 2
  get() { return this.side; } //? side means 2
}
// === parameters of a signature are seen nowhere else
declare function weigh(jar: number): void;
jar; //? jar is outside
// === parameters of a function type
type Weigher = (jar: number) => void;
const jar = 1; //? jar declares
jar; //? jar reads 2
// === names of tuple parts are no names
const first = 1;
type Pair = [first: string, second: string]; //? Pair declares
first; //? first reads 1
// === infer declares
type Part<A> = A extends { lid: infer L } ? L : never; //? L declares; L#2 reads 1
// === a mapped type has its own name
type Flags<A> = { [K in keyof A]: K }; //? K declares; K#2 reads 1
let k: K; //? K is outside
// === typeof asks for the value
const queen = 1;
type Queen = typeof queen; //? queen reads 1
// === imports of types
import type { Lot } from "./lots"; //? Lot declares
let lot: Lot; //? Lot reads 1
// === import equals
import tools = require("tools"); //? tools declares
tools.smoke(); //? tools reads 1
// === as, satisfies and ! read
const raw = 1;
raw as unknown; //? raw reads 1
raw!; //? raw reads 1
raw satisfies number; //? raw reads 1
// === assigned through a cast
let box: unknown;
(box as string) = "x"; //? box writes 1
box!++; //? box updates 1
// === generic defaults see earlier parameters
type Shelf<A, B = A> = B; //? A#2 reads 1; B#2 reads 1
// === overloads are one thing
function over(a: string): void; //? over declares
function over(a: number): void; //? over means 1
function over(a: unknown) {} //? over means 1
over(1); //? over reads 1
// === an abstract class
abstract class Bee { abstract fly(): void; go() { this.fly(); } } //? fly#2 means 1
// === a private member is seen in its class
class Comb { private cells = 1; count() { return this.cells; } } //? cells#2 means 1
// === members of others are unknown
class Comb { cells = 1; same(o: Comb) { return o.cells; } } //? cells#2 is unknown
// === a static member by the name of its class
class Scale { static zero = 0; reset() { return Scale.zero; } } //? zero#2 means 1
// === a type predicate reads the parameter
function isHive(a: unknown): a is string { return true; } //? a#2 reads 1
// === index signatures have their own name
interface Table {
  [key: string]: number;
}
key; //? key is outside
// === decorators are outside of the class
const mark = 1;
@mark class Lid { mark() {} } //? mark reads 1
// === a declared global
declare const VERSION: string; //? VERSION declares
VERSION; //? VERSION reads 1
// === members of a nested type name
namespace Tools {
  export type Smoke = string;
}
let s: Tools.Smoke; //? Tools reads 1; Smoke is unknown
// === closures capture parameters
function f(a: number) { return () => a; } //? a#2 captures 1
// === assigned by a definite assignment mark
function f() {
  let x!: number;
  return x; //? x assigned unknown
}
// === switch over all cases
function f(a: 1 | 2) {
  let x: number;
  switch (a) {
    case 1:
      x = 1;
      break;
    default:
      x = 2;
  }
  return x; //? x assigned yes
}
// === switch without a default
function f(a: 1 | 2) {
  let x: number;
  switch (a) {
    case 1:
      x = 1;
      break;
    case 2:
      x = 2;
  }
  return x; //? x assigned no
}
// === a case falls through
function f(a: number) {
  let x: number;
  switch (a) { case 1: x = 1; case 2: return x; } //? x#2 assigned no
}
// === a labelled break
function f(a: boolean) {
  let x: number;
  out: {
    if (a) break out;
    x = 1;
  }
  return x; //? x assigned no
}
// === continue goes to the test
function f(list: number[]) {
  let x = 0;
  while (x < 3) { if (list[x]) continue; x++; } //? leaves no
}
// === an endless loop is left by break only
function f() {
  let x: number;
  for (;;) {
    x = 1;
    break;
  }
  return x; //? x assigned yes
}
// === do runs once at least
function f(a: boolean) {
  let x: number;
  do {
    x = 1;
  } while (a);
  return x; //? x assigned yes
}
// === assigned where missing
function f(a?: string) {
  a ??= "x";
  return a.length; //? a missing no
}
// === a default is there
function f() {
  const a = g() ?? [];
  return a.length; //? a missing unknown
}
// === a member read before
function f(a: string | null) {
  g(a.length);
  return a.trim(); //? a missing no
}
// === an optional read says nothing
function f(a: string | null) {
  g(a?.length);
  return a; //? a missing yes
}
// === typeof tells
function f(a?: string) {
  if (typeof a === "undefined") return;
  return a; //? a missing unknown
}
// === narrowed by and
function f(a?: string) {
  return a && a.length; //? a#2 missing no
}
// === narrowed by or
function f(a?: string) {
  return !a || a.length; //? a#2 missing no
}
// === awaited values are used after
async function f() {
  const a = await g(); //? a after yes
  await g();
  return a;
}
// === thrown values escape
function f(a: Error) { //? a escapes yes
  throw a;
}
// === unchanged, with a type
function f(a: string[]) {
  const n: number = a.length;
  g(a);
  return n; //? n unchanged since 2
}
