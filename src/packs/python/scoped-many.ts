import { caution, condition, fresh, holes, need, no, python, rule, trialsIn, yes } from "../../core.js";
import { handleOf } from "../family/handles.js";
import { RESOURCES } from "./resources.js";

const { many, made, each, all, body, one } = holes({
  many: "name",
  made: "expression",
  each: "name",
  all: "expression",
  body: "statements",
  one: "name",
});
const stack = fresh("stack");
const OPPOSITE = "they are released in the opposite order, the last one first";

const { rewrites, holds, ignores } = trialsIn("python");

export const scopedMany = rule({
  id: "python/scoped-many",
  kind: "idiom",
  title: "Use an ExitStack to release any number of resources",
  why: "When the third of five cannot be opened, the first two stay open, and when closing one fails, so do those behind it.",
  was: python`
    ${many} = [${made} for ${each} in ${all}]
    try:
        ${body}
    finally:
        for ${one} in ${many}:
            ${one}.close()
  `,
  where: [(match) => handleOf(RESOURCES, match.the(made)) !== undefined],
  given: [
    condition("they are resources of the standard library", (match) => {
      const { row, answer } = handleOf(RESOURCES, match.the(made))!;
      return row.scoped === "itself" && row.release === "handle.close()"
        ? answer
        : no(
            "resource.released-once",
            `\`${match.textOf(made)}\` is not released by its own block`,
            match.the(made),
          );
    }),
    condition("the list keeps what it was filled with", (match) => {
      const changed = match
        .all(body)
        .flatMap((statement) => statement.mentions(match.textOf(many)))
        .find((use) => {
          const { parent } = use;
          const isMethod =
            parent?.is("attribute") === true &&
            /^(append|remove|pop|clear|insert|extend)$/.test(parent.child("attribute")?.text ?? "");
          const target = use.closest(["assignment", "augmented_assignment", "delete_statement"]);
          return (
            isMethod || target?.child("left")?.holds(use) === true || target?.is("delete_statement") === true
          );
        });
      return changed
        ? no("flow.written", "the list is changed meanwhile", changed)
        : yes("flow.written", "the list is not changed meanwhile");
    }),
    condition("the loop's variable is not used afterwards", (match) => {
      const name = match.textOf(one);
      const later = match.tree.root
        .mentions(name)
        .find((use) => use.start >= match.found.end && !isWritten(use));
      return later
        ? no("resource.used-after", `\`${name}\` is used afterwards`, later)
        : yes("name.scope", "only the loop uses its variable");
    }),
  ],
  cautions: (match) =>
    handleOf(RESOURCES, match.the(made))!.row.unseen ? [] : [caution("resource.order", OPPOSITE)],
  notes: (match) => (handleOf(RESOURCES, match.the(made))!.row.unseen ? [OPPOSITE] : []),
  becomes: python`
    with ${need("contextlib", "ExitStack")}() as ${stack}:
        ${many} = [${stack}.enter_context(${made}) for ${each} in ${all}]
        ${body}
  `,
  trials: [
    rewrites(
      `
      def merge(paths):
          files = [open(p) for p in paths]
          try:
              return [f.readline() for f in files]
          finally:
              for f in files:
                  f.close()
      `,
      `
      from contextlib import ExitStack

      def merge(paths):
          with ExitStack() as stack:
              files = [stack.enter_context(open(p)) for p in paths]
              return [f.readline() for f in files]
      `,
    ),
    holds(
      `
      def merge(paths):
          files = [open(p) for p in paths]
          try:
              files.append(open("a"))
              use(files)
          finally:
              for f in files:
                  f.close()
      `,
      "changed meanwhile",
    ),
    holds(
      `
      def merge(paths):
          files = [open(p) for p in paths]
          try:
              files += [open("a")]
              use(files)
          finally:
              for f in files:
                  f.close()
      `,
      "changed meanwhile",
    ),
    holds(
      `
      import sqlite3
      def merge(paths):
          files = [sqlite3.connect(p) for p in paths]
          try:
              use(files)
          finally:
              for f in files:
                  f.close()
      `,
      "not released by its own block",
    ),
    holds(
      `
      def merge(paths):
          files = [open(p) for p in paths]
          try:
              use(files)
          finally:
              for f in files:
                  f.close()
          return f.name
      `,
      "used afterwards",
    ),
    ignores(`
      def merge(paths):
          files = [wax(p) for p in paths]
          try:
              use(files)
          finally:
              for f in files:
                  f.close()
    `),
    ignores(`
      def merge(paths, others):
          files = [open(p) for p in paths]
          try:
              use(files)
          finally:
              for f in others:
                  f.close()
    `),
    ignores(`
      def merge(paths):
          files = [open(p) for p in paths]
          try:
              use(files)
          finally:
              for f in files:
                  f.close()
                  log(f)
    `),
  ],
});

function isWritten(use: { field: string | undefined; parent: { kind: string } | undefined }): boolean {
  return use.field === "left" && /^(assignment|for_)/.test(use.parent?.kind ?? "");
}
