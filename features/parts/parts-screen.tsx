"use client";
import { usePathname, useRouter, useSearchParams } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { buildGraph, partsOfKind, typeLookup } from "../../core/assembly";
import { fullName, PART_KINDS } from "../../core/catalogue";
import { radiatorSeats, tubes } from "../../core/fit";
import type { JobData } from "../../server/views/data";
import type { Had } from "../../server/views/had";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { StateMark } from "../../ui/marks";
import { Toolbar, ToolbarKey } from "../../ui/toolbar";
import { useSlice } from "../frame/slices";
import { useAddress } from "../frame/use-address";
import { KIND_WORD } from "../shared/kinds";
import { AddParts } from "./add-parts";
import { AirView } from "./air-view";
import { ClientView } from "./client-view";
import { FitView } from "./fit-view";
import { MattersView } from "./matters-view";
import { OfferView } from "./offer-view";
import { OrderView } from "./order-view";
import { PartDetail } from "./part-detail";
import { PowerView } from "./power-view";

const SHOWS = [
  ["fit", "Fit"],
  ["power", "Power"],
  ["air", "Air"],
  ["order", "Order list"],
  ["matters", "What matters"],
  ["client", "Client"],
  ["offer", "Offer"],
] as const;

/** These say nothing of one part: whoever chooses one is led back to Fit. */
const BESIDE: ReadonlySet<string> = new Set(["power", "order", "matters", "client", "offer"]);

export function PartsScreen({ first }: { first: Had<JobData<"parts">> }) {
  const { data: view } = useSlice(["job", first.data.head.number, "parts"], first);
  const { aside, brief, corrected, bought, lastPrices, offers, offerNow, facts, tips } = view;
  const graph = useMemo(() => buildGraph(view.build, typeLookup(view.build, [])), [view.build]);
  const shell = partsOfKind(graph, "case")[0]?.type.body;
  const router = useRouter();
  const path = usePathname();
  const asked = useSearchParams();
  const show = asked.get("show") ?? "fit";
  const types = useMemo(() => new Map(view.build.partTypes.map((t) => [t.id, t])), [view.build]);
  const parts = useMemo(() => {
    const order = (type: string) => PART_KINDS.indexOf(types.get(type)?.kind ?? "cable");
    return [...view.build.parts].sort((a, b) => order(a.type) - order(b.type));
  }, [view.build, types]);
  const nameOf = (id: string) => graph.parts.get(id)?.part.label ?? graph.parts.get(id)?.type.name ?? id;
  const wanted = asked.get("part");
  const [chosen, setChosen] = useState<string>(parts.find((p) => p.id === wanted)?.id ?? parts[0]?.id ?? "");
  // A remedy leads here: the part is chosen and its alternatives are open, once; a reload or another part opens nothing.
  const [tryFor, setTryFor] = useState<string | null>(null);
  const tries = asked.get("try") === "1";
  useEffect(() => {
    if (!wanted || !parts.some((p) => p.id === wanted)) return;
    setChosen(wanted);
    if (!tries) return;
    setTryFor(wanted);
    window.history.replaceState(window.history.state, "", `${path}?part=${encodeURIComponent(wanted)}`);
  }, [wanted, tries, path, parts]);
  useAddress(chosen === parts[0]?.id ? "" : new URLSearchParams({ part: chosen }).toString(), (hash) => {
    const id = new URLSearchParams(hash).get("part");
    if (id && parts.some((p) => p.id === id)) setChosen(id);
  });
  const leadsOf = useMemo(() => {
    const tags = new Map<string, string[]>();
    for (const l of graph.leads.values())
      if (l.tag && !l.part.cable && l.loom !== "seat" && l.lead.family !== "m2") tags.set(l.part.id, [...(tags.get(l.part.id) ?? []), l.tag]);
    return tags;
  }, [graph]);
  const part = parts.find((p) => p.id === chosen);
  const type = part && types.get(part.type);
  const number = view.head.number;
  const plugged = (id: string) =>
    view.leads.filter(
      (l) =>
        (l.fromPart === id || l.fromPart.startsWith(`${id}/`) || l.port?.startsWith(`${id}:`)) && (l.state === "plugged" || l.state === "checked"),
    ).length;
  const all = (id: string) =>
    view.leads.filter((l) => l.port && (l.fromPart === id || l.fromPart.startsWith(`${id}/`) || l.port.startsWith(`${id}:`))).length;
  /** What is known of a part stands beside the case; Air shows its fans itself. */
  const look = (id: string) => {
    setTryFor(null);
    setChosen(id);
    const kind = types.get(parts.find((p) => p.id === id)?.type ?? "")?.kind;
    if (BESIDE.has(show) || (show === "air" && kind !== "fan")) router.replace(path);
  };
  /** What stands on its lead, where it has one or two: parts that are alike are told apart by it. */
  const tagsOf = (part: string) => {
    const tags = leadsOf.get(part) ?? [];
    return tags.length > 0 && tags.length <= 2 ? (
      <span key="t" className="mono">
        {tags.join(", ")}
      </span>
    ) : undefined;
  };
  return (
    <div className="cols">
      <section data-tall aria-label="Parts list" className="region w-[480px] @max-[1040px]/stage:w-[300px] shrink-0 border-r border-rule">
        <div className="flex h-12 items-center gap-3 px-4">
          <h1 className="flex-1 text-key font-[650]">{view.build.parts.length} parts</h1>
          <AddParts number={number} />
        </div>
        <ul>
          {parts.map((p) => {
            const t = types.get(p.type);
            const n = all(p.id);
            const done = plugged(p.id);
            return (
              <li key={p.id}>
                <button
                  type="button"
                  data-chosen={p.id === chosen}
                  aria-pressed={p.id === chosen}
                  onClick={() => look(p.id)}
                  className={cx(
                    "bar-left flex min-h-12 w-full items-center gap-3 border-b border-b-rule py-1 pl-3 pr-3 text-left hover:bg-sheet",
                    p.id === chosen && "bg-sheet",
                  )}
                >
                  <span className="w-24 shrink-0 text-second text-soft @max-[1040px]/stage:hidden">{KIND_WORD[t?.kind ?? ""]}</span>
                  <span className="min-w-0 flex-1">
                    <span className="block truncate">{t ? fullName(t) : p.type}</span>
                    <span className="block truncate text-second text-soft">
                      {[
                        tagsOf(p.id),
                        graph.parts.get(p.id)?.part.label,
                        p.serial ? (
                          <span key="s" className="mono">
                            {p.serial}
                          </span>
                        ) : (
                          "no serial yet"
                        ),
                        p.from === "shelf" ? "from the shelf" : p.from === "order" ? "to order" : "",
                      ]
                        .filter(Boolean)
                        .map((x, i) => (
                          <span key={String(i)}>
                            {i > 0 ? ", " : ""}
                            {x}
                          </span>
                        ))}
                    </span>
                  </span>
                  <span className="w-24 shrink-0 text-second @max-[1040px]/stage:w-18">
                    {p.from === "order" ? (
                      <StateMark state="waiting" size={13} word="to order" />
                    ) : n === 0 ? (
                      ""
                    ) : done === n ? (
                      <StateMark state="plugged" size={13} />
                    ) : (
                      <StateMark state="planned" size={13} word={`${done} of ${n}`} />
                    )}
                  </span>
                </button>
              </li>
            );
          })}
        </ul>
      </section>
      <div className="flex min-w-0 flex-1 flex-col">
        <Toolbar label="What to look at" className="min-h-12 shrink-0 flex-wrap py-1.5 gap-2 border-b border-rule px-4">
          {SHOWS.map(([id, word]) => (
            <ToolbarKey key={id} pressed={show === id} onClick={() => router.replace(`${path}?show=${id}`)}>
              {word}
            </ToolbarKey>
          ))}
          <span className="flex-1" />
          <Link className="key no-underline" href={`/job/${number}/receipt`}>
            Receipt at the bench
          </Link>
        </Toolbar>
        <div className="flex min-h-0 flex-1 @max-[1040px]/stage:flex-col @max-[1040px]/stage:overflow-auto">
          {show === "power" ? (
            <PowerView graph={graph} number={number} />
          ) : show === "air" ? (
            <AirView graph={graph} number={number} chosen={chosen} onChoose={setChosen} />
          ) : show === "client" ? (
            <ClientView brief={brief} number={number} aside={aside} wishes={view.build.wishes} />
          ) : show === "matters" ? (
            <MattersView graph={graph} number={number} revision={view.head.revision} />
          ) : show === "order" ? (
            <OrderView
              graph={graph}
              planned={view.plan !== null || graph.connections.length > 0}
              aside={aside}
              came={Object.entries(facts).flatMap(([part, f]) => f.came.map(({ id }) => ({ id, with: nameOf(part) })))}
              list={{ number, bought, lastPrices, currency: offerNow.currency }}
            />
          ) : show === "offer" ? (
            <OfferView number={number} now={offerNow} offers={offers} client={view.head.client} />
          ) : (
            <FitView graph={graph} chosen={chosen} onChoose={setChosen}>
              {part && type ? (
                <PartDetail
                  key={part.id}
                  part={part}
                  type={type}
                  number={number}
                  tubing={tubes(graph).find((t) => t.seat.cooler.id === part.id)}
                  others={view.build.parts
                    .filter((p) => p.from === "client")
                    .map((p) => ({
                      id: p.id,
                      name: [leadsOf.get(p.id)?.slice(0, 1).join(), graph.parts.get(p.id)?.part.label ?? types.get(p.type)?.name ?? p.id]
                        .filter(Boolean)
                        .join(" "),
                      type: types.get(p.type)?.name ?? p.type,
                      kind: types.get(p.type)?.kind ?? "cable",
                    }))}
                  canStand={shell?.vertical !== undefined}
                  mounts={shell?.mounts ?? []}
                  radiatorPlaces={shell?.radiatorPlaces ?? []}
                  radiatorAt={radiatorSeats(graph).find((s) => s.cooler.id === part.id)?.place?.id}
                  findings={view.findings.filter((f) => f.ends.includes(part.id))}
                  photos={view.photos.filter((p) => p.parts.includes(part.id))}
                  corrected={corrected.find((c) => c.part === part.id)}
                  trying={tryFor === part.id}
                  facts={facts[part.id]}
                  tips={tips.filter((t) => t.type === part.type)}
                />
              ) : null}
            </FitView>
          )}
        </div>
      </div>
    </div>
  );
}
