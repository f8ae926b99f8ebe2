"use strict";
const Widget = require("./widget");

var Line = Widget.extend({
  mark: "-",
  // One line of the page.
  render: function (text) {
    return this.mark + " " + text;
  },
});

var Total = Line.extend({
  mark: "=",
  render: function (sum) {
    return this._super("total " + sum.toFixed(2));
  },
});

module.exports = { Line: Line, Total: Total };
