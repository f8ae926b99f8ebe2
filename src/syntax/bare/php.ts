import type { Bare } from "../bare-facts.js";

const MEMBERS = [
  "member_access_expression",
  "nullsafe_member_access_expression",
  "member_call_expression",
  "nullsafe_member_call_expression",
  "scoped_call_expression",
  "class_constant_access_expression",
  "scoped_property_access_expression",
  "subscript_expression",
  "function_call_expression",
];

export const phpBare: readonly Bare[] = [
  // A new object may be asked at once from version 8.4 on; with parentheses, always.
  {
    kinds: ["object_creation_expression"],
    never: MEMBERS,
    except: (node, parent) => node.start !== parent.start,
  },
];
