import { readFileSync } from "node:fs";
import { imbra } from "./commands";

imbra(process.argv.slice(2), () => readFileSync(0, "utf8")).then(({ status, stdout, stderr }) => {
  process.exitCode = status;
  process.stdout.write(stdout);
  process.stderr.write(stderr);
});
