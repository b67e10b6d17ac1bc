export { type Manifest, MOST_ARCHIVE_BYTES, type Opened, opened } from "./opened";
export { type About, ARCHIVE_VERSION, type Held, packed, sha256 } from "./pack";
