//! target 2020
//! run
const a = () => ({ 1: [5] });
function run(out) {
  const b = a(); // the rest
  [1].forEach((n) => out.push(n));
  return b;
}
const out = [];
run(out);
console.log(out);
