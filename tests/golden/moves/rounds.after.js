"use strict";
// The keepers' rounds: when which hive is due, told in words.
const addDays = require("date-fns/addDays");
const {
  areIntervalsOverlapping,
  compareAsc,
  differenceInDays,
  eachDayOfInterval,
  endOfISOWeekYear,
  format,
  formatDistance: formatDistance_2,
  formatDistanceStrict,
  getISOWeekYear,
  getOverlappingDaysInIntervals,
  isSameISOWeekYear,
  max,
  min,
} = require("date-fns");
const dates = require("date-fns");
const formatDistance = require("date-fns/formatDistance");
const isWithinInterval = require("date-fns/isWithinInterval");

const spring = new Date(2021, 2, 20);
const summer = new Date(2021, 5, 21);
const autumn = new Date(2021, 8, 22);
const winter = new Date(2021, 11, 21);

function rounds(first, count) {
  const due = [];
  for (let i = 0; i < count; i++) due.push(addDays(first, 7 * i));
  return due;
}

const due = rounds(spring, 5);
console.log(due.map((day) => differenceInDays(day, spring)).join(" "));
console.log(due.filter((day) => isWithinInterval(day, { start: addDays(spring, 3), end: addDays(spring, 21) })).length);
console.log(formatDistance(summer, spring), "and", formatDistance(summer, spring, { addSuffix: true }));
console.log(formatDistanceStrict(autumn, summer, { unit: "d" }).split(" ")[0]);
console.log(formatDistance_2(autumn, winter, { addSuffix: true }));
console.log(areIntervalsOverlapping({ start: spring, end: autumn }, { start: summer, end: winter }), getOverlappingDaysInIntervals({ start: spring, end: autumn }, { start: summer, end: winter }));
console.log(eachDayOfInterval({ start: spring, end: addDays(spring, 3) }).length, eachDayOfInterval({ start: spring, end: addDays(spring, 9) }, { step: 3 }).length);
console.log(max([spring, winter, summer]).getTime() === winter.getTime(), min(due).getTime() === spring.getTime());
console.log(getISOWeekYear(winter), isSameISOWeekYear(spring, winter), endOfISOWeekYear(spring).getMonth());
console.log([winter, spring].sort(compareAsc)[0] === spring, [spring, winter].map((day) => dates.getISOWeekYear(day)).join());
console.log(format(spring, "YYYY-MM-DD"));
