"use strict";
// The keepers' rounds: when which hive is due, told in words.
const addDays = require("date-fns/add_days");
const isWithin = require("date-fns/is_within_range");
const inWords = require("date-fns/distance_in_words");
const {
  areRangesOverlapping,
  compareAsc,
  differenceInDays,
  distanceInWordsStrict,
  eachDay,
  endOfISOYear,
  format,
  getISOYear,
  getOverlappingDaysInRanges,
  isSameISOYear,
  max,
  min,
} = require("date-fns");
const dates = require("date-fns");

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
console.log(due.filter((day) => isWithin(day, addDays(spring, 3), addDays(spring, 21))).length);
console.log(inWords(spring, summer), "and", inWords(spring, summer, { addSuffix: true }));
console.log(distanceInWordsStrict(summer, autumn, { unit: "d" }).split(" ")[0]);
console.log(dates.distanceInWords(winter, autumn, { addSuffix: true }));
console.log(areRangesOverlapping(spring, autumn, summer, winter), getOverlappingDaysInRanges(spring, autumn, summer, winter));
console.log(eachDay(spring, addDays(spring, 3)).length, dates.eachDay(spring, addDays(spring, 9), 3).length);
console.log(max(spring, winter, summer).getTime() === winter.getTime(), min(...due).getTime() === spring.getTime());
console.log(getISOYear(winter), isSameISOYear(spring, winter), endOfISOYear(spring).getMonth());
console.log([winter, spring].sort(compareAsc)[0] === spring, [spring, winter].map((day) => dates.getISOYear(day)).join());
console.log(format(spring, "YYYY-MM-DD"));
