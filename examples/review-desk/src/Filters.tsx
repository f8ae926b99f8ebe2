import { useId, useMemo, useState, type RefObject } from "react";
import { doubtsOf, KINDS, TRUSTS, type Plan } from "uvran/core";
import { GROUPINGS, SHOWN, type Tab, type View } from "./model.js";

interface Props {
  readonly plan: Plan;
  readonly view: View;
  readonly search: RefObject<HTMLInputElement | null>;
  readonly change: (parts: Readonly<Record<string, string | readonly string[] | undefined>>) => void;
}

const SHOWN_WORDS = {
  all: "all",
  open: "not decided",
  keep: "kept",
  drop: "dropped",
  later: "put off",
  again: "to decide again",
} as const;
const SHOWN_OF_CHANGES = SHOWN.map((one) => [one, SHOWN_WORDS[one]] as const);
const SHOWN_OF_PLACES = [
  ["all", "all"],
  ["open", "not marked"],
] as const;
const TRUST_WORDS = { certain: "certain", likely: "likely or better", possible: "any" } as const;
const TRUST_CHOICES = [...TRUSTS].reverse().map((one) => [one, TRUST_WORDS[one]] as const);

/** What is looked at: every choice stands in the address, so that it can be linked to. */
export function Filters({ plan, view, search, change }: Props) {
  const { rules, paths, codes } = useMemo(() => choicesOf(plan, view.tab), [plan, view.tab]);
  const base = useId();
  const select = (
    label: string,
    name: string,
    value: string,
    options: readonly (readonly [string, string])[],
  ) => (
    <div className="choice">
      <label htmlFor={`${base}-${name}`}>{label}</label>
      <select
        id={`${base}-${name}`}
        value={value}
        onChange={(event) => change({ [name]: event.target.value, at: undefined })}
      >
        {options.map(([key, says]) => (
          <option key={key} value={key}>
            {says}
          </option>
        ))}
      </select>
    </div>
  );
  const any = ["", "any"] as const;
  const plain = (values: readonly string[]): [string, string][] => values.map((value) => [value, value]);
  const isOfChanges = view.tab === "changes";
  const { filter } = view;
  const isNarrowed = Object.keys(filter).length > 0;
  const [isOpen, setOpen] = useState(isNarrowed);
  return (
    <div className="filters">
      <div className="choices">
        <div className="choice">
          <label htmlFor={`${base}-search`}>Search</label>
          <input
            id={`${base}-search`}
            ref={search}
            type="search"
            value={view.search}
            placeholder="title, path, evidence"
            onChange={(event) => change({ search: event.target.value })}
          />
        </div>
        {select("Show", "shown", view.shown, isOfChanges ? SHOWN_OF_CHANGES : SHOWN_OF_PLACES)}
      </div>
      <details open={isOpen} onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
        <summary>
          {isNarrowed ? "Filtered" : "Filter"}
          {isOfChanges ? `, by ${view.by}` : ""}
        </summary>
        <div className="choices">
          {isOfChanges && select("Group", "by", view.by, plain(GROUPINGS))}
          {isOfChanges && select("Trust", "trust", filter.trust ?? "possible", TRUST_CHOICES)}
          {select("Rule", "rule", filter.rules?.[0] ?? "", [any, ...plain(rules)])}
          {select("Files", "path", filter.paths?.[0] ?? "", [any, ...plain(paths)])}
          {isOfChanges && select("Kind", "kind", filter.kinds?.[0] ?? "", [any, ...plain(KINDS)])}
          {isOfChanges && select("Doubt", "code", filter.codes?.[0] ?? "", [any, ...plain(codes)])}
        </div>
      </details>
    </div>
  );
}

/** All rules, folders, files and codes of doubt that there are to choose from. */
function choicesOf(plan: Plan, tab: Tab): { rules: string[]; paths: string[]; codes: string[] } {
  const { changes, heldBack, advice } = plan;
  const of = { changes: [], held: heldBack, advice }[tab];
  const named =
    tab === "changes"
      ? changes.map(({ rules, path }) => ({ rules, path }))
      : of.map(({ rule, path }) => ({ rules: rule.split(" + "), path }));
  const paths = new Set<string>();
  for (const { path } of named) {
    const parts = path.split("/");
    for (let i = 1; i <= parts.length; i++) paths.add(parts.slice(0, i).join("/"));
  }
  const sorted = (values: Iterable<string>): string[] => [...new Set(values)].sort();
  return {
    rules: sorted(named.flatMap(({ rules }) => rules)),
    paths: sorted(paths),
    codes: sorted(changes.flatMap((change) => [...doubtsOf(change)])),
  };
}
