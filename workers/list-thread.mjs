// The list thread of a process that runs the sources as they are: threads do not take over how their process reads TypeScript.
import { register } from "tsx/esm/api";

register();
export default (await import("./list-thread.mts")).default;
