import { changes, type ChangeTable } from "../../core.js";

type Row = ChangeTable["rows"][number];

const NOTES = "https://github.com/date-fns/date-fns/blob/main/CHANGELOG.md";

/** Functions that stay, and whose files have another name. */
const KEPT = `
addDays addHours addMilliseconds addMinutes addMonths addQuarters addSeconds addWeeks addYears closestIndexTo closestTo
compareAsc compareDesc differenceInCalendarDays differenceInCalendarISOWeeks differenceInCalendarMonths
differenceInCalendarQuarters differenceInCalendarWeeks differenceInCalendarYears differenceInDays differenceInHours
differenceInMilliseconds differenceInMinutes differenceInMonths differenceInQuarters differenceInSeconds differenceInWeeks
differenceInYears endOfDay endOfHour endOfISOWeek endOfMinute endOfMonth endOfQuarter endOfSecond endOfToday endOfTomorrow
endOfWeek endOfYear endOfYesterday getDate getDay getDayOfYear getDaysInMonth getDaysInYear getHours getISODay getISOWeek
getISOWeeksInYear getMilliseconds getMinutes getMonth getQuarter getSeconds getTime getYear isAfter isBefore isDate isEqual
isFirstDayOfMonth isFriday isFuture isLastDayOfMonth isLeapYear isMonday isPast isSameDay isSameHour isSameISOWeek
isSameMinute isSameMonth isSameQuarter isSameSecond isSameWeek isSameYear isSaturday isSunday isThisHour isThisISOWeek
isThisMinute isThisMonth isThisQuarter isThisSecond isThisWeek isThisYear isThursday isToday isTomorrow isTuesday isValid
isWednesday isWeekend isYesterday lastDayOfISOWeek lastDayOfMonth lastDayOfQuarter lastDayOfWeek lastDayOfYear setDate
setDay setDayOfYear setHours setISODay setISOWeek setMilliseconds setMinutes setMonth setQuarter setSeconds setYear
startOfDay startOfHour startOfISOWeek startOfMinute startOfMonth startOfQuarter startOfSecond startOfToday startOfTomorrow
startOfWeek startOfYear startOfYesterday subDays subHours subMilliseconds subMinutes subMonths subQuarters subSeconds
subWeeks subYears`
  .trim()
  .split(/\s+/);

/** Functions with another name and the same arguments. */
const RENAMED: readonly (readonly [old: string, now: string])[] = [
  ["addISOYears", "addISOWeekYears"],
  ["differenceInCalendarISOYears", "differenceInCalendarISOWeekYears"],
  ["differenceInISOYears", "differenceInISOWeekYears"],
  ["distanceInWordsToNow", "formatDistanceToNow"],
  ["endOfISOYear", "endOfISOWeekYear"],
  ["getISOYear", "getISOWeekYear"],
  ["isSameISOYear", "isSameISOWeekYear"],
  ["lastDayOfISOYear", "lastDayOfISOWeekYear"],
  ["setISOYear", "setISOWeekYear"],
  ["startOfISOYear", "startOfISOWeekYear"],
  ["subISOYears", "subISOWeekYears"],
];

/** Calls that are written in another way: what stands for anything, the old arguments, the new call. */
const CALLS: readonly (readonly [
  id: string,
  name: string,
  any: string,
  old: string,
  now: string,
  written: string,
])[] = [
  ["distance", "distanceInWords", "a, b", "a, b, …", "formatDistance", "b, a, …"],
  ["strict-distance", "distanceInWordsStrict", "a, b", "a, b, …", "formatDistanceStrict", "b, a, …"],
  ["range", "isWithinRange", "a, b, c", "a, b, c", "isWithinInterval", "a, { start: b, end: c }"],
  [
    "overlapping",
    "areRangesOverlapping",
    "a, b, c, d",
    "a, b, c, d",
    "areIntervalsOverlapping",
    "{ start: a, end: b }, { start: c, end: d }",
  ],
  [
    "overlapping-days",
    "getOverlappingDaysInRanges",
    "a, b, c, d",
    "a, b, c, d",
    "getOverlappingDaysInIntervals",
    "{ start: a, end: b }, { start: c, end: d }",
  ],
  ["days", "eachDay", "a, b", "a, b", "eachDayOfInterval", "{ start: a, end: b }"],
  [
    "days-by-step",
    "eachDay",
    "a, b, step",
    "a, b, step",
    "eachDayOfInterval",
    "{ start: a, end: b }, { step: step }",
  ],
  ["max", "max", "a, b, rest: arguments", "a, b, rest", "max", "[a, b, rest]"],
  ["min", "min", "a, b, rest: arguments", "a, b, rest", "min", "[a, b, rest]"],
  ["max-of-list", "max", "list", "...list", "max", "list"],
  ["min-of-list", "min", "list", "...list", "min", "list"],
];

/** Calls of which somebody must see what they mean now: what stands for anything, the arguments, what to do. */
const OTHERWISE: readonly (readonly [id: string, name: string, any: string, args: string, advice: string])[] =
  [
    [
      "format",
      "format",
      "",
      "…",
      "Write the pattern with the letters of Unicode: `yyyy-MM-dd` for `YYYY-MM-DD`.",
    ],
    ["parse", "parse", "", "…", "Use parseISO for text in ISO 8601, and toDate for dates and numbers."],
    ["iso-year", "isThisISOYear", "", "…", "Compare with isSameISOWeekYear(date, new Date())."],
    [
      "strict-unit",
      "distanceInWordsStrict",
      "a, b, unit",
      "a, b, { unit: unit }",
      "Write the unit out: `day` for `d`.",
    ],
  ];

/** `date-fns/add_days`, the file of a function in version 1. */
const oldFile = (name: string): string =>
  `date-fns/${name.replace("ISO", "Iso").replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)}`;
const newFile = (name: string): string => `date-fns/${name}`;

const dashed = (name: string): string => oldFile(name).slice("date-fns/".length).replaceAll("_", "-");

const common = { since: "2.0", link: NOTES, kind: "breaks" } as const;
const MOVED = "The files of the functions are called like the functions.";

function fileRow(name: string): Row {
  const use = `dates.map((date) => ${name}(date));\n`;
  return {
    ...common,
    id: `file-${dashed(name)}`,
    old: name,
    from: `default as ${name} from ${oldFile(name)}`,
    new: name,
    to: `default as ${name} from ${newFile(name)}`,
    note: MOVED,
    example: {
      old: `import ${name} from "${oldFile(name)}";\n${use}`,
      new: `import ${name} from "${newFile(name)}";\n${use}`,
    },
  };
}

/** The same row for a function of the package, and for one that has its file imported. */
function bothWays(
  id: string,
  name: string,
  now: string,
  row: (note: string) => Pick<Row, "old" | "new" | "any" | "note">,
  [before, after]: readonly [string, string],
): Row[] {
  const body = row(name === now ? `${name} takes other arguments.` : `${name} is called ${now}.`);
  return [
    {
      ...common,
      ...body,
      id,
      from: `${name} from date-fns`,
      to: `${now} from date-fns`,
      example: {
        old: `import { ${name} } from "date-fns";\n${before}\n`,
        new: `import { ${now} } from "date-fns";\n${after}\n`,
      },
    },
    {
      ...common,
      ...body,
      id: `file-${id}`,
      from: `default as ${name} from ${oldFile(name)}`,
      to: `default as ${now} from ${newFile(now)}`,
      example: {
        old: `import ${name} from "${oldFile(name)}";\n${before}\n`,
        new: `import ${now} from "${newFile(now)}";\n${after}\n`,
      },
    },
  ];
}

const rows: Row[] = [
  ...KEPT.map(fileRow),
  ...RENAMED.flatMap(([name, now]) =>
    bothWays(dashed(name), name, now, (note) => ({ old: name, new: now, note }), [
      `dates.map(${name});`,
      `dates.map(${now});`,
    ]),
  ),
  ...CALLS.flatMap(([id, name, any, old, now, written]) => {
    const plain = (args: string): string => args.replace(/, …|, rest/, "");
    return bothWays(
      id,
      name,
      now,
      (note) => ({ any, old: `${name}(${old})`, new: `${now}(${written})`, note }),
      [`use(${name}(${plain(old)}));`, `use(${now}(${plain(written)}));`],
    );
  }),
  ...OTHERWISE.flatMap(([id, name, any, args, advice]): Row[] =>
    [
      { id, from: `${name} from date-fns`, head: `import { ${name} } from "date-fns";` },
      {
        id: `file-${id}`,
        from: `default as ${name} from ${oldFile(name)}`,
        head: `import ${name} from "${oldFile(name)}";`,
      },
    ].map(({ id: own, from, head }) => ({
      ...common,
      id: own,
      old: `${name}(${args})`,
      ...(any === "" ? {} : { any }),
      from,
      advice,
      note: `${name} means something else.`,
      example: { old: `${head}\n${name}(${args.replace("…", "day")});\n` },
    })),
  ),
];

/** The package date-fns from version 1 to version 2. */
export default changes({ product: "date-fns", language: "javascript", steps: ["2.0"], rows });
