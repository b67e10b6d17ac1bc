import { forgetSlices } from "../frame/kept-slices";

/**
 * Pages kept on this device for when there is no network are of whoever opened them: who signs out takes them along, and who comes after
 * sees none of them. `butFor` says which stay, by their path. Entries that wait stay.
 */
export async function forgetPages(butFor?: (path: string) => boolean): Promise<void> {
  if (!butFor) await forgetSlices();
  if (!("caches" in window)) return;
  if (!butFor) {
    await caches.delete("pages").catch(() => false);
    return;
  }
  try {
    const pages = await caches.open("pages");
    for (const kept of await pages.keys()) if (!butFor(new URL(kept.url).pathname)) await pages.delete(kept);
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}
