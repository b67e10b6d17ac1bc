import { QueryClient } from "@tanstack/react-query";
import type { Had } from "../../server/views/had";

/** The first part of every key of a slice; the rest is its address under /data. */
export const SLICE = "slice";
export type SliceKey = readonly [typeof SLICE, ...string[]];

/** A slice that could not be had: 401 where nobody is signed in; 0 where nothing answered. */
export class SliceMissed extends Error {
  constructor(readonly status: number) {
    super(`a slice was not to be had: ${status}`);
  }
}

/** Of two, what the server looked at later, by its own clock: a device's clock lies, and a kept page may be older than what was kept since. */
export const later = <T>(a: Had<T> | undefined, b: Had<T>): Had<T> => (a && a.asOfMs >= b.asOfMs ? a : b);

const RELOADED = "imbra-reloaded-for";

/** The server is of another build than this page: what it sends may not be what this page knows. Once for each build. */
function reloadFor(build: string): void {
  if (sessionStorage.getItem(RELOADED) === build) return;
  sessionStorage.setItem(RELOADED, build);
  window.location.reload();
}

/** Asks for a slice, with the tag of what is there already: what has not moved is not sent again. */
export async function haveSlice<T>(client: QueryClient, key: SliceKey, signal: AbortSignal): Promise<Had<T>> {
  const there = client.getQueryData<Had<T>>(key);
  let answer: Response;
  try {
    answer = await fetch(`/data/${key.slice(1).map(encodeURIComponent).join("/")}`, {
      cache: "no-store",
      signal,
      ...(there ? { headers: { "If-None-Match": `"${there.tag}"` } } : {}),
    });
  } catch {
    throw new SliceMissed(0);
  }
  const build = answer.headers.get("X-Imbra-Build");
  if (build !== null && build !== (process.env.IMBRA_BUILD ?? "")) reloadFor(build);
  const seen = { asOfMs: Number(answer.headers.get("X-Imbra-As-Of")), since: answer.headers.get("X-Imbra-Since") ?? "" };
  if (answer.status === 304 && there) return { ...there, ...seen };
  if (!answer.ok) throw new SliceMissed(answer.status);
  return { data: (await answer.json()) as T, tag: (answer.headers.get("ETag") ?? "").replaceAll(/^(?:W\/)?"|"$/g, ""), ...seen };
}

/** Kept in memory for so long after the screen that showed it was left. */
const LEFT_MS = 10 * 60_000;

const newClient = () =>
  new QueryClient({
    defaultOptions: {
      // News say when something moved, and features/frame/live.tsx asks again where it could not be had.
      queries: {
        staleTime: Number.POSITIVE_INFINITY,
        // A timer on the server would hold each page that was made for as long.
        gcTime: typeof window === "undefined" ? Number.POSITIVE_INFINITY : LEFT_MS,
        retry: false,
        networkMode: "always",
        refetchOnWindowFocus: false,
        refetchOnReconnect: false,
      },
    },
  });

let here: QueryClient | undefined;
/** This browser's; on the server one for each page that is made. */
export function sliceClient(): QueryClient {
  if (typeof window === "undefined") return newClient();
  here ??= newClient();
  return here;
}

/** Has what is on screen anew, and what is not when it is shown again. Resolves when it is there, or could not be had. */
export const renewSlices = (): Promise<void> => sliceClient().invalidateQueries({ queryKey: [SLICE], refetchType: "active" });

/** How far what is on screen has seen everything: as far as that which has seen least. */
export function seenUpTo(client: QueryClient): string | undefined {
  const marks = client
    .getQueryCache()
    .findAll({ queryKey: [SLICE], type: "active" })
    .flatMap((q) => (q.state.data as Had<unknown> | undefined)?.since ?? []);
  const least = marks.filter((m) => /^\d{1,19}$/.test(m)).sort((a, b) => (BigInt(a) < BigInt(b) ? -1 : 1))[0];
  return marks.includes("") ? undefined : least;
}
