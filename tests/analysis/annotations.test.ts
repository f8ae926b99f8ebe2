import { declaredType, isOnPrimitives } from "uvran/core";
import { treeOf } from "../languages.js";

const TYPES = `
interface Hive { queen: string; frames?: number; keeper?: Keeper | null; }
interface Keeper { village: string }
interface Loose { length: number }
type MaybeHive = Hive | undefined;
type Same = Same;
enum Mood { calm, cross }
class Box { lid?: string; open = true; static note: string; constructor(readonly hive: Hive) {} }
import { Far } from "far";
`;

/** What is known of the last expression: false values, then ? for undefined and 0 for null. */
function known(declarations: string, expression: string): string | undefined {
  const code = `${TYPES}${declarations}\n${expression};\n`;
  const statement = treeOf("typescript", code).root.parts.at(-1)!;
  const type = declaredType(statement.parts[0]!);
  return (
    type &&
    [...type.falsy, type.canBeUndefined ? "?" : "", type.canBeNull ? "null" : ""].filter(Boolean).join(" ")
  );
}

test.each([
  ["let x: string;", "x", '""'],
  ["let x: number | undefined;", "x", "0 NaN ?"],
  ["let x: boolean | null;", "x", "false null"],
  ["let x: 'a' | 'b';", "x", ""],
  ["let x: '' | 0 | 1;", "x", '"" 0'],
  ["let x: string[] | undefined;", "x", "?"],
  ["let x: (a: string) => void;", "x", ""],
  ["let x: Map<string, number> | null;", "x", "null"],
  ["let x: Date;", "x", ""],
  ["let x: Hive;", "x", ""],
  ["let x: MaybeHive;", "x", "?"],
  ["let x: { a: 1 } | undefined;", "x", "?"],
  ["let x: Hive;", "x.queen", '""'],
  ["let x: Hive;", "x.frames", "0 NaN ?"],
  ["let x: Hive;", "x.keeper", "? null"],
  ["let x: Hive;", "x.keeper.village", '""'],
  ["let x: MaybeHive;", "x?.queen", '"" ?'],
  ["let x: Hive;", "(x.queen)", '""'],
])("with `%s`, what is false of `%s` is [%s]", (declarations, expression, falsy) => {
  expect(known(declarations, expression)).toBe(falsy);
});

test.each([
  ["let x = 1;", "x"],
  ["let x: any;", "x"],
  ["let x: unknown;", "x"],
  ["let x: Far;", "x"],
  ["let x: Far | undefined;", "x"],
  ["let x: Mood;", "x"],
  ["let x: Same;", "x"],
  ["let x: Loose;", "x"],
  ["let x: { length: number };", "x"],
  ["let x: {};", "x"],
  ["let x: Hive[];", "x[0]"],
  ["let x: Hive;", "x.nothing"],
  ["let x: () => Hive;", "x()"],
  ["let x: Hive;", "x!"],
  ["class Date {} let x: Date;", "x"],
  ["import { Map } from 'm'; let x: Map<string, string>;", "x"],
  ["interface Hive { more: 1 } let x: Hive;", "x"],
  ["function f<T extends object>(x: T) {}", "x"],
  ["let x: typeof y;", "x"],
  ["", "nowhere"],
])("with `%s` nothing is known of `%s`", (declarations, expression) => {
  expect(known(declarations, expression)).toBeUndefined();
});

test("fields of the class around are known through this", () => {
  const tree = treeOf("typescript", "class A { lid?: string; f() { return this.lid; } }");
  const read = [...tree.root.descendants()].find((node) => node.is("member_expression"))!;
  expect(declaredType(read)).toMatchObject({ falsy: ['""'], canBeUndefined: true, text: "string" });
});

test("what primitives have through their prototypes", () => {
  expect(["length", "trim", "toFixed", "constructor", "valueOf"].every(isOnPrimitives)).toBe(true);
  expect(["queen", "village", "__esModule"].some(isOnPrimitives)).toBe(false);
});
