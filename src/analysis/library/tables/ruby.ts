import type { LibraryCalls, LibraryClasses } from "../facts.js";
import { rowsOf } from "./words.js";

const { calls, classes } = rowsOf("ruby");

/** Methods of Ruby's own classes. */
export const CALLS: readonly LibraryCalls[] = [
  calls(
    "String#strip String#lstrip String#rstrip String#chomp String#chop String#upcase String#downcase String#capitalize " +
      "String#swapcase String#reverse String#tr String#delete String#squeeze String#center String#ljust String#rjust " +
      "String#to_s String#dup",
    { effect: "reads", gives: "String" },
  ),
  calls("String#to_i String#length String#size String#hash", { effect: "reads", gives: "Integer" }),
  calls("String#to_f", { effect: "reads", gives: "Float" }),
  calls("String#to_sym", { effect: "reads", gives: "Symbol" }),
  calls("String#split String#lines String#chars String#bytes", { effect: "reads", gives: "Array" }),
  calls("String#sub String#gsub", { effect: "reads", runs: true, gives: "String" }),
  calls("Integer#to_s Float#to_s Symbol#to_s", { effect: "none", gives: "String" }),
  calls("Integer#to_i Float#to_i Float#floor Float#ceil Integer#abs Integer#succ", {
    effect: "none",
    gives: "Integer",
  }),
  calls("Integer#to_f Float#to_f Float#abs", { effect: "none", gives: "Float" }),
  calls("Array#length Array#size Hash#length Hash#size", { effect: "reads", gives: "Integer" }),
  calls("Array#compact Array#flatten Array#reverse Array#uniq Array#to_a Array#dup", {
    effect: "reads",
    asksArguments: true,
    keeps: true,
    gives: "Array",
  }),
  calls("Array#map Array#select Array#reject Array#sort Array#sort_by Hash#map", {
    effect: "reads",
    runs: true,
    keeps: true,
    gives: "Array",
  }),
  calls("Array#join", { effect: "reads", asksArguments: true, gives: "String" }),
  calls("Hash#keys Hash#values Hash#to_a", { effect: "reads", keeps: true, gives: "Array" }),
  calls("File.join File.basename File.dirname File.extname File.expand_path", {
    effect: "reads",
    asksArguments: true,
    gives: "String",
  }),
  calls("File.read", { effect: "reads", gives: "String" }),
  calls("File.readlines", { effect: "reads", gives: "Array" }),
  calls("File.open File.new", { effect: "changes", acquires: true, runs: true }),
];

export const CLASSES: readonly LibraryClasses[] = [
  classes("Hash", ["map"]),
  classes("Array", ["sequence"]),
  classes("Mutex", ["lock"]),
];
