"use strict";
// Pieces of the page, made in the way that was common before there were classes.

/** Makes a class of an object: `init` is its constructor, and `_super` the method that another one overrides. */
function Widget() {}

Widget.extend = function (members) {
  var Parent = this;
  var Child = function () {
    if (members.init) members.init.apply(this, arguments);
    else Parent.apply(this, arguments);
  };
  Child.prototype = Object.create(Parent.prototype);
  Object.keys(members).forEach(function (name) {
    var own = members[name];
    var parents = Parent.prototype[name];
    Child.prototype[name] =
      typeof own !== "function"
        ? own
        : function () {
            this._super = parents;
            return own.apply(this, arguments);
          };
  });
  Child.extend = Parent.extend;
  return Child;
};

module.exports = Widget;
