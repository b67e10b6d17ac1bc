import { afterAll } from "vitest";
import { ownDatabase } from "../fixtures/own-database";

// Before each file of this folder: a database of its own, so that files run side by side and none leans on another's leftovers.
const own = await ownDatabase("fixed");
process.env.DATABASE_URL = own.url;
afterAll(own.drop);
