// The header of a loop gave a second variable its value, by a call or for the code behind the loop, and all of it was dropped.
function weighed(jars) {
  for (let i = 0, scale = start(); i < jars.length; i++) { //! held: runs ahead of the loop
    weigh(jars[i]);
  }
}
function counted(jars) {
  let i, n;
  for (i = 0, n = jars.length; i < n; i++) { //! held: is used elsewhere
    weigh(jars[i]);
  }
  return n;
}
