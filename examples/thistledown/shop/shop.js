"use strict";
// Reads the shelf and prints a page and a bill.
var fs = require("fs");
var path = require("path");
var goods = require("./goods");
var pages = require("./pages");

function readShelf(file, done) {
  fs.readFile(file, "utf8", function (err, text) {
    if (err) return done(err);
    var rows = JSON.parse(text);
    if (rows.length === 0) return done(new Error("the shelf is empty"));
    done(null, rows);
  });
}

function readJars(file, done) {
  fs.stat(file, function (err, stat) {
    if (err) {
      done(err);
      return;
    }
    readShelf(file, function (err, rows) {
      if (err) return done(err);
      // Only what is left is shown.
      var jars = rows
        .filter(function (row) {
          return row.left > 0;
        })
        .map(function (row) {
          return new goods.Jar(row.jar, row.price, row.grams);
        });
      done(null, { size: stat.size, jars: jars });
    });
  });
}

function bill(order, prices) {
  var sum = 0;
  for (var name in order) {
    if (order.hasOwnProperty(name)) {
      sum += order[name] * prices[name];
    }
  }
  return Math.pow(10, -2) * Math.round(sum * Math.pow(10, 2));
}

var defaults = { shown: "all", note: "" };

function show(found, options) {
  var settings = Object.assign({}, defaults, options);
  var line = new pages.Line();
  var total = new pages.Total();
  var prices = {};
  for (var i = 0; i < found.jars.length; i++) {
    console.log(line.render(found.jars[i].label()));
    prices[found.jars[i].name] = found.jars[i].price;
  }
  if (settings.shown.indexOf("all") !== -1 && settings.note) console.log(settings.note);
  console.log(total.render(bill({ heather: 2, clover: 1 }, prices)));
  console.log(found.jars[0].kinds().join(", ") + "; " + (found.size > 100 ? "a full shelf" : "a short shelf"));
}

readJars(path.join(__dirname, "shelf.json"), function (err, found) {
  if (err) {
    console.error(err.message);
    process.exitCode = 1;
  } else {
    show(found, { note: "fresh this week" });
  }
});
