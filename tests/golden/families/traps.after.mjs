import fs from "node:fs";
import { open } from "node:fs/promises";
import os from "node:os";
import path from "node:path";

const file = path.join(fs.mkdtempSync(path.join(os.tmpdir(), "uvran-")), "wax.txt");
const log = [];

function write(text) {
  const fd = fs.openSync(file, "w");
  try {
    if (text === "none") return "early";
    fs.writeSync(fd, text);
  } finally {
    fs.closeSync(fd);
  }
  return "done";
}

async function read() {
  let text;
  const handle = await open(file);
  try {
    text = await handle.readFile("utf8");
  } finally {
    await handle.close();
  }
  return text;
}

class Hive {
  #asked = 0;
  get queen() {
    this.#asked++;
    return this.#asked > 1 ? null : { name: "Ada" };
  }
  open() {
    log.push("open");
    return 0;
  }
}

function call(hive) {
  hive?.open();
  hive?.open();
  return hive?.open();
}

function values(x) {
  let y = x ?? "filled";
  const z = x ?? "default";
  return [y, z, x?.length];
}

let n = 0;
const next = () => (++n % 2 ? "one" : null);
const twice = () => (next() != null ? next() : "none");
const chain = (a) => (a && a.b && a.b.c ? "deep" : "shallow");
const stops = (a) => a && a.b;
const removed = (a) => {
  if (a != null) delete a.b;
  return a;
};

console.log(write("wax"), write("none"), fs.readFileSync(file, "utf8"));
write("honey");
console.log(await read());
console.log(call(new Hive()), call(null), call(undefined), log);
for (const x of [null, undefined, 0, "", false, NaN, "x"]) console.log(values(x));
console.log(twice(), n);
console.log(chain(null), chain({}), chain({ b: { c: 1 } }), stops(0), stops(""), stops(null), stops({ b: 2 }));
console.log(removed({ b: 1 }), removed(null));
