// CQL2 Text on standard input, one expression a line, to CQL2 JSON by an independent reader, one line each.
import { readFileSync } from "node:fs";
import * as reader from "../node_modules/cql2-wasm/cql2_wasm_bg.js";

const module = new WebAssembly.Module(readFileSync(new URL("../node_modules/cql2-wasm/cql2_wasm_bg.wasm", import.meta.url)));
const imports = {};
for (const i of WebAssembly.Module.imports(module)) (imports[i.module] ??= {})[i.name] = reader[i.name];
const instance = new WebAssembly.Instance(module, imports);
reader.__wbg_set_wasm(instance.exports);
instance.exports.__wbindgen_start();
for (const line of readFileSync(0, "utf8").split("\n").filter(Boolean)) console.log(reader.parseText(line).to_json());
