//! rules javascript/key-and-value
//! run
// for…in over a list of keys walks their positions: jars["0"], and not jars["b"].
const jars = { b: 3, 0: 7 };
let last = "none";
for (const k in Object.keys(jars)) last = jars[k] ?? last;
let all = "";
for (const k of Object.keys(jars)) all = all + k + jars[k]; //! certain
console.log(last, all);
