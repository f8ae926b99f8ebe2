import { asking, notAsking } from "./condition-edits";
import { opened, renamed, respecified, spec, tidied, writtenOut } from "./hole-edits";
import type { Action } from "./protocol";
import { applied } from "./text-edits";
import { withTrial } from "./trial-edits";

/** A rule file after something was done to it. Throws an Error that says why it cannot be done. */
export function done(text: string, action: Action): string {
  switch (action.does) {
    case "open":
      return opened(text, action.start, action.end, action.kind);
    case "widen":
      return tidied(applied(text, [{ from: action.start, to: action.end, insert: `\${${action.name}}` }]));
    case "write-out":
      return writtenOut(text, action.name, action.code);
    case "kind":
      return respecified(text, action.name, ({ limits }) => spec(action.kind, limits));
    case "limit":
      return respecified(text, action.name, ({ kind, limits }) => {
        const others = limits.filter(({ name }) => name !== action.limit);
        const { limit: name, source } = action;
        return spec(kind, source === undefined ? others : [...others, { name, source }]);
      });
    case "rename":
      return renamed(text, action.name, action.to);
    case "ask":
      return asking(text, action.rule, action.source, action.imports);
    case "do-not-ask":
      return notAsking(text, action.rule, action.source);
    case "trial":
      return withTrial(text, action);
  }
}
