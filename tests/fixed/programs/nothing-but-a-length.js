//! rules javascript/mapped-list
//! run
// for…of refuses what only has a length, and Array.from takes it.
function names(jars) {
  const all = []; //! likely
  for (const jar of jars) all.push(jar?.name);
  return all;
}

try {
  console.log(names(new Set([{ name: "a" }])));
} catch (error) {
  console.log(error.name);
}
