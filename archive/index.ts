export { type Manifest, type Opened, opened } from "./opened";
export { type About, type Held, packed } from "./pack";
