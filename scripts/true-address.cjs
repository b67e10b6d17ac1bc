// Loaded before the server: whoever connects cannot say where they come from. `IMBRA_PROXY=1`: a proxy in front says it instead.
const { Server } = require("node:http");

if (process.env.IMBRA_PROXY !== "1") {
  const { emit } = Server.prototype;
  Server.prototype.emit = function (event, ...more) {
    if (event === "request") delete more[0]?.headers["x-forwarded-for"];
    return emit.call(this, event, ...more);
  };
}
