import "server-only";
import { mkdir, readFile, rename, rm, writeFile } from "node:fs/promises";
import { join } from "node:path";

/**
 * Where pictures are kept, by their id. A folder now; a store that keeps objects by key over HTTP (put, get, delete of one object) is
 * the same three functions.
 */
export interface PhotoStore {
  put: (id: string, bytes: Buffer) => Promise<void>;
  /** Undefined: there is none of that id. */
  get: (id: string) => Promise<Buffer | undefined>;
  remove: (id: string) => Promise<void>;
}

const ID = /^[0-9a-f-]{36}$/;

/** Pictures as files of a folder, two letters of the id to a folder within. A picture is there whole or not at all. */
export function folderStore(root: string): PhotoStore {
  const folder = (id: string) => join(root, id.slice(0, 2));
  const file = (id: string) => {
    if (!ID.test(id)) throw new Error(`${id} is no id of a photo`);
    return join(folder(id), `${id}.jpg`);
  };
  return {
    put: async (id, bytes) => {
      const at = file(id);
      await mkdir(folder(id), { recursive: true });
      await writeFile(`${at}.part`, bytes);
      await rename(`${at}.part`, at);
    },
    get: (id) =>
      readFile(file(id)).catch((e: NodeJS.ErrnoException) => {
        if (e.code === "ENOENT") return undefined;
        throw e;
      }),
    remove: (id) => rm(file(id), { force: true }),
  };
}

export const photoStore: PhotoStore = folderStore(process.env.IMBRA_PHOTOS ?? join(process.cwd(), ".data", "photos"));
