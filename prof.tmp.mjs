import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { allLanguages, changesInFile, Engine, languageOfFile, parse } from "uvran";
import { decode, inspect, wasmPath } from "uvran/node";
import { Parser, Language as Grammar } from "web-tree-sitter";
import js from "uvran/packs/javascript";
import py from "uvran/packs/python";
const which = process.argv[2] ?? "js";
const folder = which === "js" ? "node_modules" : process.argv[3] ?? "/root/.pyenv/versions/"+readdirSync("/root/.pyenv/versions")[0]+"/lib/"+readdirSync("/root/.pyenv/versions/"+readdirSync("/root/.pyenv/versions")[0]+"/lib").find(n=>/^python3/.test(n));
const result=[]; let total=0;
for (const name of readdirSync(folder,{recursive:true,encoding:"utf8"}).sort()) {
  const path=join(folder,name); const language=languageOfFile(name);
  if(!language|| (language.id==="python")!==(which==="py") || /\.d\.[cm]?ts$|\.min\.js$|site-packages/.test(name)||total>8e6) continue;
  let bytes; try{bytes=readFileSync(path)}catch{continue}
  if(inspect(bytes)||bytes.length>5e5) continue; total+=bytes.length; result.push({path,text:decode(bytes),language});
}
const all=new Engine([...js.rules,...py.rules]); const ready=new Map();
for(const l of allLanguages()) ready.set(l.id,await all.prepare(l));
const parsers=new Map();
for(const l of allLanguages()){ if(parsers.has(l.grammar))continue; const p=new Parser(); p.setLanguage(await Grammar.load(wasmPath(l.grammar+".wasm"))); parsers.set(l.grammar,p);}
const t=f=>{const s=performance.now();f();return performance.now()-s};
const rounds=+(process.env.R??2);
let b=1e9,e=1e9; let n=0;
for(let i=0;i<rounds;i++){
 b=Math.min(b,t(()=>{for(const {text,language} of result) parsers.get(language.grammar).parse(text).delete()}));
 e=Math.min(e,t(()=>{n=0;for(const {path,text,language} of result) n+=changesInFile({path},text,language,ready.get(language.id)).changes.length}));
}
console.log(result.length,(total/1e6).toFixed(1),"bare",b.toFixed(0),"engine",e.toFixed(0),(e/b).toFixed(2),"changes",n);
