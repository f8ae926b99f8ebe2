//! target 2021
let x = null;
let y = 1;
x = x // why //! certain
  ?? y;
if (x === null) /* here */ { //! possible
  x = 1; // there
}
