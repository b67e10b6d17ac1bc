"use client";
import { QueryClientProvider, useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useMemo, useState } from "react";
import type { Had } from "../../server/views/had";
import { putKept, takeKept } from "./kept-slices";
import { haveSlice, later, SLICE, type SliceKey, sliceClient } from "./slice-client";

/** What screens have as data, each asked for anew by itself when news move it. */
export function SlicesProvider({ children }: { children: ReactNode }) {
  const [client] = useState(sliceClient);
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}

/** Screens that show slices now: a page that shows none is had anew as a whole. */
let shown = 0;
export const showsSlices = (): boolean => shown > 0;

/**
 * A slice by its address under /data, begun with what the page brought. Of that, of what came since and of what the device kept, the latest
 * counts. `known` is false until what the device kept has been looked at, where the slice is kept (`keep`). `around`: it stands around a
 * page, and says nothing of how the page itself is had.
 */
export function useSlice<T>(path: readonly string[], first: Had<T>, { keep = false, around = false } = {}): Had<T> & { known: boolean } {
  const address = path.join("/");
  const key = useMemo((): SliceKey => [SLICE, ...address.split("/")], [address]);
  const client = useQueryClient();
  const { data } = useQuery<Had<T>>({ queryKey: key, queryFn: ({ signal }) => haveSlice<T>(client, key, signal), initialData: first });
  const now = later(data, first);
  useEffect(() => {
    const there = client.getQueryData<Had<T>>(key);
    if (there !== first && later(there, first) === first) client.setQueryData(key, first);
  }, [client, key, first]);
  useEffect(() => {
    if (around) return;
    shown++;
    return () => {
      shown--;
    };
  }, [around]);
  const [looked, setLooked] = useState<SliceKey>();
  useEffect(() => {
    if (!keep) return;
    let gone = false;
    void takeKept(client, key).finally(() => gone || setLooked(key));
    return () => {
      gone = true;
    };
  }, [client, key, keep]);
  const known = !keep || looked === key;
  useEffect(() => {
    if (keep && known && now) void putKept(client, key);
  }, [client, key, keep, known, now]);
  return { ...now, known };
}
