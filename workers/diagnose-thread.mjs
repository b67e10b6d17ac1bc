// The diagnosis thread of a process that runs the sources as they are: threads do not take over how their process reads TypeScript.
import { register } from "tsx/esm/api";

register();
export default (await import("./diagnose-thread.mts")).default;
