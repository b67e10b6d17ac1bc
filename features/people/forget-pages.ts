import { forgetSeen } from "../bench/use-seen";

/** Pages kept on this device for when there is no network: whoever signs out takes them along. Entries that wait stay. */
export async function forgetPages(): Promise<void> {
  await forgetSeen();
  if ("caches" in window) await caches.delete("pages").catch(() => false);
}
