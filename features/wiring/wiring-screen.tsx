"use client";
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";
import { LOOM_NAME, LOOMS } from "../../core/catalogue";
import { sceneOf, seenRect } from "../../core/scene";
import { BOARD_REGIONS } from "../../core/sheet";
import type { JobView } from "../../server/read/job-view";
import type { LeadRow } from "../../server/read/lead-rows";
import { Button } from "../../ui/button";
import { LoomSwatch } from "../../ui/loom";
import { Toolbar, ToolbarKey } from "../../ui/toolbar";
import { useTakeBack } from "../bench/use-take-back";
import { useKeys } from "../frame/keys";
import { useAct } from "../frame/use-act";
import { useAddress } from "../frame/use-address";
import { useLater } from "../frame/use-later";
import { useSteady } from "../frame/use-steady";
import { fixAction, leadThroughAction } from "./actions";
import { type Candidate, candidates, graphOf } from "./candidates";
import { WiringFiles } from "./files";
import { FindLeads } from "./find-field";
import { findLeads, findPorts, type Group, groupLeads, type Show, scanned } from "./find-leads";
import { Inspector } from "./inspector";
import { LeadList } from "./lead-list";
import { goesOn, MachinePlan, OtherSheet } from "./machine-plan";
import { PlanFoot } from "./plan-foot";
import { RegionMap, regionOfMachine } from "./region-map";
import { Schools } from "./schools";
import { useBoxSize } from "./use-box-size";
import { usePinch } from "./use-pinch";
import { usePlan } from "./use-plan";
import { WaysIn } from "./ways-in";
import { WhichPort } from "./which-port";
import { fromAddress, STILL, toAddress, wiringAfter } from "./wiring-state";

/** px a mm; the whole fits the room that there is. */
const ZOOMS = [
  { name: "Whole", scale: 0 },
  { name: "Region", scale: 3 },
  { name: "Port", scale: 6 },
] as const;
/** From this width on both sides of the tray stand beside each other. */
const BOTH_FROM_PX = 1040;

export function WiringScreen({
  view,
  isRunning,
}: {
  view: Pick<JobView, "build" | "leads" | "findings" | "plan" | "head" | "free">;
  /** A plan of this job is being made. */
  isRunning: boolean;
}) {
  const { number } = view.head;
  const graph = useMemo(() => graphOf(view.build), [view.build]);
  const scene = useMemo(() => sceneOf(graph), [graph]);
  const drawn = useLater(useMemo(() => ({ scene, leads: view.leads }), [scene, view.leads]));
  const looms = useMemo(() => LOOMS.filter((l) => l !== "seat"), []);
  const [state, happen] = useReducer(wiringAfter, STILL);
  const { hand, loom, zoom, region, sheet } = state;
  const chosen = hand.at === "lead" || hand.at === "taking" ? hand.lead : null;
  const chosenPort = hand.at === "port" ? hand.port : null;
  const taking = hand.at === "taking";
  const aim = hand.at === "taking" ? (hand.aim ?? null) : null;
  // The address says what is on screen: back, reload and a link that is passed on show the same. Behind the hash, for what stands before it
  // is another page to the framework, which would draw this one anew.
  const address = toAddress(state);
  useAddress(address, (hash) =>
    happen({
      do: "come back",
      to: fromAddress(new URLSearchParams(hash), {
        lead: (x) => view.leads.some((l) => l.address === x),
        port: (x) => graph.ports.has(x),
        looms,
      }),
    }),
  );
  const [ask, setAsk] = useState<string[]>([]);
  const act = useAct();
  const planning = usePlan(number, isRunning);
  const box = useRef<HTMLDivElement>(null);
  usePinch(box, (by) => happen({ do: "zoom", to: zoom + by }));
  const [text, setText] = useState("");
  const [show, setShow] = useState<Show>("all");
  const [group, setGroup] = useState<Group>("loom");
  const [heard, setHeard] = useState("");
  const { parts } = view.build;
  const groups = useMemo(() => {
    const found = findLeads(view.leads, parts, text, show).filter((l) => !loom || l.loom === loom);
    const nameOf = (id: string) => {
      const p = graph.parts.get(id);
      return p?.part.label ?? p?.type.name ?? id;
    };
    return groupLeads(found, parts, nameOf, group);
  }, [view.leads, parts, text, show, loom, group, graph]);
  const leads = useMemo(() => groups.flatMap((g) => g.leads), [groups]);
  const filled = useMemo(() => new Set(view.leads.flatMap((l) => l.port ?? [])), [view.leads]);
  const foundPorts = useMemo(() => findPorts(graph, text), [graph, text]);
  const lead = view.leads.find((l) => l.address === chosen);
  // The whole machine in the room that there is; both sides of the tray where there is room for them.
  const room = useBoxSize(box, { w: 608, h: 648 });
  const sides = room.w >= BOTH_FROM_PX && zoom === 0 && scene.hasCase ? 2 : 1;
  const base = useMemo(
    () => Math.max(0.7, Math.min(2.6, (room.h - 44) / scene.view.heightMm, (room.w / sides - 24) / scene.view.widthMm)),
    [scene, room, sides],
  );
  const scale = Math.max(base, ZOOMS[zoom]?.scale ?? 0);

  const choose = useCallback((address: string) => {
    setHeard("");
    happen({ do: "choose lead", lead: address });
  }, []);
  const choosePort = useSteady((address: string) => {
    const here = view.leads.filter((l) => l.port === address);
    if (taking && chosen) {
      const node = graph.leads.get(chosen);
      const c = node && candidates(graph, node).find((x) => x.port === address);
      if (c) {
        place(chosen, c);
        return;
      }
    }
    if (here.length === 1 && here[0]) happen({ do: "choose lead", lead: here[0].address });
    else happen({ do: "choose port", port: address });
  });
  const take = useSteady(() => {
    if (chosen) happen({ do: "take", lead: chosen });
    else document.querySelector<HTMLElement>("#fits button")?.focus();
  });
  const choosePart = useSteady((ids: readonly string[]) => {
    const mine = view.leads.filter((l) => ids.includes(l.fromPart) || ids.includes((l.port ?? "").slice(0, (l.port ?? "").indexOf(":"))));
    const own = mine.filter((l) => ids.includes(l.fromPart));
    const list = own.length > 0 ? own : mine;
    const at = list.findIndex((l) => l.address === chosen);
    const next = list[(at + 1) % Math.max(1, list.length)];
    if (next) choose(next.address);
  });

  function place(address: string, c: Candidate) {
    const l = view.leads.find((x) => x.address === address);
    happen({ do: "put down" });
    act.run(
      () => fixAction({ number, lead: address, port: c.port, ...(c.place ? { place: c.place } : {}), fixed: true }),
      () => `${l?.tag ?? "It"} is fixed in ${c.name}.${c.taken ? ` ${c.taken} is free now: plan again.` : ""}`,
    );
  }
  const unfix = (l: LeadRow) => {
    if (l.port)
      act.run(
        () => fixAction({ number, lead: l.address, port: l.port, ...(l.place ? { place: l.place } : {}), fixed: false }),
        () => `${l.tag} is the planner's again.`,
      );
  };
  const through = (l: LeadRow, cutout: string | null) =>
    act.run(
      () => leadThroughAction({ number, lead: l.address, cutout }),
      () => (cutout === null ? `${l.tag} is led the usual way again.` : `${l.tag} is led so, whatever is planned.`),
    );
  const runPlan = () => {
    act.clear();
    setHeard("");
    planning.start();
  };

  const step = (by: number, e?: KeyboardEvent) => {
    const t = e?.target as HTMLElement | null;
    if (t && t !== document.body && !t.closest("[data-plan]")) return false;
    const at = leads.findIndex((l) => l.address === chosen);
    const next = leads[Math.min(leads.length - 1, Math.max(0, at + by))];
    if (next) choose(next.address);
    return true;
  };
  const focusOn = (id: string) => () => document.getElementById(id)?.focus();
  const fixHere = () => {
    if (!lead?.port || (lead.state !== "planned" && lead.state !== "free")) return false;
    const { tag, address, port, place: at } = lead;
    if (lead.fixed) unfix(lead);
    else
      act.run(
        () => fixAction({ number, lead: address, port, ...(at ? { place: at } : {}), fixed: true }),
        () => `${tag} is fixed where it is.`,
      );
    return true;
  };
  const takeBack = useTakeBack(number, setHeard);
  useKeys(
    "screen",
    [
      { keys: ["/"], word: "Find a lead", run: focusOn("find-lead"), atOnce: true },
      { keys: ["ArrowDown"], word: "Next lead", only: "keys", run: (e) => step(1, e) },
      { keys: ["ArrowUp"], word: "Lead before", only: "keys", run: (e) => step(-1, e) },
      {
        keys: ["Enter"],
        word: "Take the lead, then place it",
        only: "keys",
        run: (e) => (lead && e?.target === document.body ? happen({ do: "take", lead: lead.address }) : false),
      },
      { keys: ["Escape"], word: "Let go", only: "keys", run: () => (hand.at === "nothing" ? false : happen({ do: "let go" })) },
      { keys: ["f"], word: "Fix the lead where it is, or let the planner have it", run: fixHere },
      { keys: ["w"], word: "Why here", run: focusOn("why") },
      { keys: ["p"], word: "Pins", run: focusOn("pins") },
      ...looms.map((l, i) => ({ keys: [`${i + 1}`], word: `Only ${LOOM_NAME[l].toLowerCase()}`, run: () => happen({ do: "loom", loom: l }) })),
      { keys: ["0"], word: "All looms", run: () => happen({ do: "loom", loom: null }) },
      { keys: ["t"], word: "Turn to the other side of the tray", run: () => happen({ do: "turn" }) },
      { keys: ["+", "="], word: "Nearer", run: () => happen({ do: "zoom", to: zoom + 1 }) },
      { keys: ["-"], word: "Further away", run: () => happen({ do: "zoom", to: zoom - 1 }) },
      { keys: [], word: "Plan the wiring", run: runPlan },
      { keys: ["ctrl+z"], word: "Take back the last entry of mine", run: takeBack },
    ],
    (code) => {
      const hit = scanned(view.leads, parts, code);
      act.clear();
      if (!hit) return false;
      setText("");
      setShow("all");
      happen({ do: "loom", loom: null });
      choose(hit.address);
      setHeard(`Scanned: ${hit.tag}, ${hit.name}.`);
      return true;
    },
  );

  // Zoomed in, the region or the chosen port comes to the middle, whichever was chosen last.
  // With nothing chosen: to where the plugs of the loom are on this side.
  const middle = useMemo(() => {
    const v = scene.view;
    const mine = scene.ports.filter((p) => p.sheets.includes(sheet) && (!loom || view.leads.some((l) => l.loom === loom && l.port === p.address)));
    const rects = mine.map((p) => seenRect(scene, sheet, p.rect));
    const mean = (of: (r: (typeof rects)[number]) => number) => rects.reduce((n, r) => n + of(r), 0) / rects.length;
    return rects.length === 0 ? { x: v.widthMm / 2, y: v.heightMm / 2 } : { x: mean((r) => r.xMm) - v.xMm, y: mean((r) => r.yMm) - v.yMm };
  }, [scene, sheet, loom, view.leads]);
  const chosenAt = scene.ports.find((p) => p.address === (chosenPort ?? lead?.port) && p.sheets.includes(sheet));
  useEffect(() => {
    const el = box.current;
    if (!el || zoom === 0) return;
    const third = BOARD_REGIONS.find((r) => r.name === region);
    const r = chosenAt && seenRect(scene, sheet, chosenAt.rect);
    const { view: v } = scene;
    const at = third
      ? { x: third.x * v.widthMm, y: third.y * v.heightMm }
      : r
        ? { x: r.xMm + r.widthMm / 2 - v.xMm, y: r.yMm + r.heightMm / 2 - v.yMm }
        : middle;
    el.scrollTo({ left: at.x * scale + 8 - el.clientWidth / 2, top: at.y * scale + 8 - el.clientHeight / 2 });
  }, [zoom, scale, chosenAt, region, scene, sheet, middle]);
  const open = useMemo(() => {
    if (!lead || !taking) return new Set<string>();
    const node = graph.leads.get(lead.address);
    return new Set(
      node
        ? candidates(graph, node)
            .filter((c) => !c.taken)
            .map((c) => c.port)
        : [],
    );
  }, [lead, taking, graph]);
  const other = sheet === "front" ? ("behind" as const) : ("front" as const);
  const unplanned = view.leads.filter((l) => !l.port && l.loom !== "seat" && !l.out).length;

  return (
    <div className="cols cols-3">
      <section data-tall aria-label="Leads" className="flex w-76 shrink-0 flex-col border-r border-rule">
        <h1 className="sr-only">Wiring of {number}</h1>
        <div className="flex h-12 shrink-0 items-center gap-2 px-4">
          <span className="flex-1 text-key font-[650]">{loom ? LOOM_NAME[loom] : "All leads"}</span>
          {loom ? <Button onClick={() => happen({ do: "loom", loom: null })}>All</Button> : null}
          <Schools number={number} policy={view.build.policy} />
          <WiringFiles number={number} />
        </div>
        <FindLeads
          text={text}
          onText={setText}
          show={show}
          onShow={setShow}
          group={group}
          onGroup={setGroup}
          found={leads.length}
          of={view.leads.length}
          ports={foundPorts.length}
          onEnter={() => {
            const port = foundPorts[0];
            if (leads[0]) choose(leads[0].address);
            else if (port) choosePort(port.address);
          }}
        />
        <LeadList groups={groups} ports={foundPorts} chosen={chosen} chosenPort={chosenPort} onChoose={choose} onPort={choosePort} onTake={take} />
      </section>
      <section data-tall data-first aria-label="Plan" className="relative flex min-w-0 flex-1 flex-col" data-plan>
        <div className="flex min-h-9 shrink-0 items-center gap-3 px-2 text-second">
          <span className="min-w-0 flex-1 truncate">
            {sides === 2
              ? "Front of the tray, and behind it as seen from behind."
              : sheet === "front"
                ? scene.hasCase
                  ? "Front of the tray, rear sockets left"
                  : "The board, rear sockets left; no case yet"
                : "From behind: mirrored, rear sockets right"}
            {scene.assumed.length > 0 ? `. Assumed: ${scene.assumed.join(", ")}` : ""}
          </span>
          {sides === 1 && scene.hasCase ? (
            <Button className="shrink-0 px-2 text-second" onClick={() => happen({ do: "turn" })}>
              {sheet === "front" ? "Look behind the tray" : "Look at the front"}
            </Button>
          ) : null}
        </div>
        <div
          ref={box}
          role="group"
          aria-label="Drawing of the machine"
          className="flex min-h-0 flex-1 touch-pan-x touch-pan-y overflow-auto"
          tabIndex={0}
        >
          <div className="relative m-auto flex gap-2">
            {(sides === 2 ? (["front", "behind"] as const) : [sheet]).map((side) => (
              <MachinePlan
                key={side}
                scene={drawn.scene}
                leads={drawn.leads}
                sheet={side}
                loom={loom}
                chosen={chosen}
                chosenPort={chosenPort}
                open={open}
                scale={scale}
                namesAll={zoom > 0}
                onPort={choosePort}
                onPart={choosePart}
                onLead={choose}
                onAsk={setAsk}
              />
            ))}
            {sides === 1 && zoom === 0 && goesOn(scene, view.leads, other, loom, chosen) ? (
              <OtherSheet
                scene={drawn.scene}
                leads={drawn.leads}
                sheet={other}
                loom={loom}
                chosen={chosen}
                chosenPort={chosenPort}
                open={open}
                scale={scale}
                onTurn={() => happen({ do: "turn" })}
              />
            ) : null}
          </div>
        </div>
        {zoom > 0 ? (
          <div className="relative h-0">
            <RegionMap
              scene={scene}
              sheet={sheet}
              filled={filled}
              now={region ?? (chosenAt ? regionOfMachine(scene, sheet, chosenAt.rect) : "middle centre")}
              onRegion={(name) => happen({ do: "region", region: name })}
            />
          </div>
        ) : null}
        <WhichPort
          ports={ask}
          nameOf={(a) => graph.ports.get(a)?.name ?? a}
          leads={view.leads}
          onPick={(a) => {
            setAsk([]);
            choosePort(a);
          }}
          onClose={() => setAsk([])}
        />
        <Toolbar label="Looms and zoom" className="min-h-12 shrink-0 !gap-1 overflow-x-auto border-t border-rule px-2 py-1.5">
          {looms.map((l) => (
            <ToolbarKey
              key={l}
              className="gap-1 px-1.5 text-second"
              pressed={loom === l}
              onClick={() => happen({ do: "loom", loom: loom === l ? null : l })}
            >
              <LoomSwatch loom={l} width={22} />
              {LOOM_NAME[l]}
            </ToolbarKey>
          ))}
          <span className="flex-1" />
          {ZOOMS.map((z, i) => (
            <ToolbarKey key={z.name} className="px-1.5 text-second" pressed={zoom === i} onClick={() => happen({ do: "zoom", to: i })}>
              {z.name}
            </ToolbarKey>
          ))}
        </Toolbar>
      </section>
      <section aria-label="Inspector" className="flex w-80 shrink-0 flex-col border-l border-rule">
        <div className="region min-h-0 flex-1" tabIndex={0} role="group" aria-label="What is chosen">
          {view.plan?.ways && !view.plan.stale && !planning.busy && !lead && !chosenPort ? (
            <WaysIn ways={view.plan.ways} graph={graph} number={number} onPlan={runPlan} />
          ) : null}
          <Inspector
            graph={graph}
            lead={lead}
            portAddress={chosenPort}
            leads={view.leads}
            findings={view.findings}
            taking={taking}
            aim={aim}
            busy={act.pending}
            number={number}
            onPlace={place}
            onUnfix={unfix}
            onThrough={through}
            onChoose={choose}
            onLetGo={() => happen({ do: "put down" })}
            onTake={take}
            onAim={(address, port) => happen({ do: "take", lead: address, aim: port })}
          />
        </div>
        <PlanFoot
          number={number}
          plan={view.plan}
          planning={planning}
          pending={act.pending}
          said={act.sentence || heard}
          unplanned={unplanned}
          onPlan={runPlan}
        />
      </section>
    </div>
  );
}
