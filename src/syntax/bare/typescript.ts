import type { Bare } from "../bare-facts.js";
import { ecmascriptBare } from "./ecmascript.js";

const AS_TYPES = ["as_expression", "satisfies_expression"];

export const typescriptBare: readonly Bare[] = [
  ...ecmascriptBare,
  {
    kinds: AS_TYPES,
    never: ["call_expression", "member_expression", "non_null_expression", "new_expression"],
  },
  {
    kinds: AS_TYPES,
    never: ["subscript_expression"],
    except: (node, parent) => node.start !== parent.start,
  },
  { kinds: ["arrow_function", "yield_expression"], never: [...AS_TYPES, "non_null_expression"] },
  // `q as T < b` begins the arguments of a type.
  {
    kinds: [...AS_TYPES, "instantiation_expression"],
    never: ["binary_expression"],
    except: (_, parent) => !parent.has("<") && !parent.has("<<"),
  },
  { kinds: ["instantiation_expression"], never: ["member_expression", "non_null_expression"] },
  {
    kinds: ["new_expression"],
    which: (node) => node.child("arguments") === undefined,
    never: ["member_expression", "non_null_expression", "call_expression"],
  },
  {
    kinds: ["new_expression"],
    which: (node) => node.text.endsWith(">"),
    never: ["binary_expression"],
    except: (_, parent) => !parent.has("<") && !parent.has("<<"),
  },
  {
    kinds: ["type_assertion"],
    never: ["binary_expression"],
    except: (node, parent) => !parent.has("**") || node.start !== parent.start,
  },
  {
    kinds: [
      "arrow_function",
      "assignment_expression",
      "await_expression",
      "binary_expression",
      "ternary_expression",
      "type_assertion",
      "unary_expression",
      "yield_expression",
      ...AS_TYPES,
    ],
    never: ["extends_clause"],
  },
];
