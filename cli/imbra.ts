import { readFileSync } from "node:fs";
import { imbra } from "./commands";

imbra(process.argv.slice(2), () => readFileSync(0, "utf8")).then(({ status, stdout, bytes, stderr }) => {
  process.exitCode = status;
  process.stdout.write(bytes ?? stdout);
  process.stderr.write(stderr);
});
