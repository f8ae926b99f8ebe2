//! rules javascript/value-or-fallback
//! run
function open(x) {
  switch (x) {
    default:
      return x;
    case null:
      return 1;
    case undefined:
  }
}

function whole(x) {
  switch (x) { //! certain
    default:
      return x;
    case undefined:
    case null:
      return 1;
  }
}

console.log(open(null), open(undefined), open(3), whole(null), whole(undefined), whole(3));
