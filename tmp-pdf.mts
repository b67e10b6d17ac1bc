// @ts-nocheck
import { writeFileSync } from "node:fs";
import { runSheetPdf } from "./server/files/run-sheet";
import { DEMO, demo, demoPlan } from "./tests/fixtures/demo";
import * as order from "./core/order";
import { buildGraph } from "./core/assembly";
const name = process.argv[2] ?? "fs-1042";
const { build } = await demoPlan(name);
const g = buildGraph(build, demo(name).types);
console.log(Object.keys(order).join());
const o = (order as any).orderOf ? (order as any).orderOf(g) : undefined;
if (o) writeFileSync("/tmp/out.pdf", await runSheetPdf({ number: name.toUpperCase(), title: "Try", client: "Client" }, o));
