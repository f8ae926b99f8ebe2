"use strict";
// What stands on the shelf, as the first web shop had it.
var util = require("util");

/** Something that is sold. */
function Good(name, price) {
  this.name = name;
  this.price = price;
}

// As it stands on the label.
Good.prototype.label = function () {
  return this.name + " for " + this.price.toFixed(2);
};

Good.prototype.isFree = function () {
  return this.price === 0;
};

/** A jar of honey. */
function Jar(name, price, grams) {
  Good.call(this, name, price);
  this.grams = grams;
}
util.inherits(Jar, Good);

Jar.prototype.label = function () {
  return Good.prototype.label.call(this) + " (" + this.grams + " g)";
};

Jar.prototype.kinds = function () {
  var words = this.name.split(" ");
  var kinds = [];
  for (var i = 0; i < words.length; i++) {
    var word = words[i];
    kinds.push(word.substr(0, 1).toUpperCase() + word.substr(1));
  }
  return kinds;
};

exports.Good = Good;
exports.Jar = Jar;
