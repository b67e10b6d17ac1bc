"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { LOOM_NAME, LOOMS } from "../../core/catalogue";
import { BOARD_REGIONS, regionOfBoard } from "../../core/sheet";
import type { JobView } from "../../server/read/job-view";
import type { LeadRow } from "../../server/read/lead-rows";
import { type LoomName, LoomSwatch } from "../../ui/loom";
import { useAct } from "../frame/use-act";
import { useKeys } from "../frame/use-keys";
import { useLater } from "../frame/use-later";
import { useSteady } from "../frame/use-steady";
import { fixAction } from "./actions";
import { BoardPlan } from "./board-plan";
import { WiringFiles } from "./files";
import { FindLeads } from "./find-field";
import { findLeads, findPorts, type Group, groupLeads, type Show, scanned } from "./find-leads";
import { Inspector } from "./inspector";
import { LeadList } from "./lead-list";
import { PlanFoot } from "./plan-foot";
import { RegionMap } from "./region-map";
import { type Candidate, candidates, dockOfLead, sceneOf } from "./scene";
import { Schools } from "./schools";
import { usePinch } from "./use-pinch";
import { usePlan } from "./use-plan";
import { WaysIn } from "./ways-in";
import { WhichPort } from "./which-port";

const ZOOMS = [
  { name: "Whole", scale: 1 },
  { name: "Region", scale: 2.3 },
  { name: "Port", scale: 5 },
] as const;

export function WiringScreen({
  view,
  isRunning,
}: {
  view: Pick<JobView, "build" | "leads" | "findings" | "plan" | "head" | "free">;
  /** A plan of this job is being made. */
  isRunning: boolean;
}) {
  const { number } = view.head;
  const scene = useMemo(() => sceneOf(view.build), [view.build]);
  const drawn = useLater(useMemo(() => ({ scene, leads: view.leads }), [scene, view.leads]));
  const [chosen, setChosen] = useState<string | null>(null);
  const [chosenPort, setChosenPort] = useState<string | null>(null);
  const [taking, setTaking] = useState(false);
  const [aim, setAim] = useState<string | null>(null);
  const [loom, setLoom] = useState<LoomName | null>(null);
  const [zoom, setZoom] = useState(0);
  const [region, setRegion] = useState<string | null>(null);
  const [ask, setAsk] = useState<string[]>([]);
  const act = useAct();
  const planning = usePlan(number, isRunning);
  const box = useRef<HTMLDivElement>(null);
  usePinch(box, (by) => setZoom((z) => Math.min(2, Math.max(0, z + by))));
  const looms = useMemo(() => LOOMS.filter((l) => l !== "seat"), []);
  const [text, setText] = useState("");
  const [show, setShow] = useState<Show>("all");
  const [group, setGroup] = useState<Group>("loom");
  const [heard, setHeard] = useState("");
  const { parts } = view.build;
  const groups = useMemo(() => {
    const found = findLeads(view.leads, parts, text, show).filter((l) => !loom || l.loom === loom);
    const nameOf = (id: string) => {
      const p = scene.graph.parts.get(id);
      return p?.part.label ?? p?.type.name ?? id;
    };
    return groupLeads(found, parts, nameOf, group);
  }, [view.leads, parts, text, show, loom, group, scene]);
  const leads = useMemo(() => groups.flatMap((g) => g.leads), [groups]);
  const filled = useMemo(() => new Set(view.leads.flatMap((l) => l.port ?? [])), [view.leads]);
  const foundPorts = useMemo(() => findPorts(scene.graph, text), [scene, text]);
  const lead = view.leads.find((l) => l.address === chosen);
  const base = useMemo(() => Math.min(1.31, 400 / scene.heightMm, 322 / scene.widthMm), [scene]);
  const scale = base * (ZOOMS[zoom]?.scale ?? 1);

  const choose = useCallback((address: string) => {
    setHeard("");
    setChosen(address);
    setChosenPort(null);
    setTaking(false);
    setAim(null);
  }, []);
  const choosePort = useSteady((address: string) => {
    const here = view.leads.filter((l) => l.port === address);
    if (taking && chosen) {
      const node = scene.graph.leads.get(chosen);
      const c = node && candidates(scene.graph, node).find((x) => x.port === address);
      if (c) {
        place(chosen, c);
        return;
      }
    }
    setTaking(false);
    if (here.length === 1 && here[0]) {
      setChosen(here[0].address);
      setChosenPort(null);
    } else {
      setChosen(null);
      setChosenPort(address);
    }
  });
  const take = useSteady(() => {
    if (chosen) setTaking(true);
    else document.querySelector<HTMLElement>("#fits button")?.focus();
  });
  const chooseDock = useCallback(
    (ids: readonly string[]) => {
      const mine = view.leads.filter((l) => {
        const n = scene.graph.leads.get(l.address);
        return n && (ids.includes(dockOfLead(scene.graph, n)) || ids.includes(l.fromPart));
      });
      const at = mine.findIndex((l) => l.address === chosen);
      const next = mine[(at + 1) % Math.max(1, mine.length)];
      if (next) choose(next.address);
    },
    [view.leads, scene, chosen, choose],
  );

  function place(address: string, c: Candidate) {
    const l = view.leads.find((x) => x.address === address);
    setTaking(false);
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
  const runPlan = () => {
    act.clear();
    setHeard("");
    planning.start();
  };

  useKeys(
    (k, e) => {
      const t = e.target as HTMLElement | null;
      if (k === "Escape") {
        if (taking) setTaking(false);
        else {
          setChosen(null);
          setChosenPort(null);
        }
      } else if (/^[1-5]$/.test(k)) setLoom(looms[Number(k) - 1] ?? null);
      else if (k === "0") setLoom(null);
      else if (k === "+" || k === "=") setZoom((z) => Math.min(2, z + 1));
      else if (k === "-") setZoom((z) => Math.max(0, z - 1));
      else if (k === "/") document.getElementById("find-lead")?.focus();
      else if (k.toLowerCase() === "w") document.getElementById("why")?.focus();
      else if (k.toLowerCase() === "p") document.getElementById("pins")?.focus();
      else if (k.toLowerCase() === "f" && lead?.port && (lead.state === "planned" || lead.state === "free")) {
        const { tag, address, port, place: at } = lead;
        if (lead.fixed) unfix(lead);
        else
          act.run(
            () => fixAction({ number, lead: address, port, ...(at ? { place: at } : {}), fixed: true }),
            () => `${tag} is fixed where it is.`,
          );
      } else if ((k === "ArrowDown" || k === "ArrowUp") && (t === document.body || t?.closest("[data-plan]"))) {
        e.preventDefault();
        const at = leads.findIndex((l) => l.address === chosen);
        const next = leads[Math.min(leads.length - 1, Math.max(0, at + (k === "ArrowDown" ? 1 : -1)))];
        if (next) choose(next.address);
      } else if (k === "Enter" && t === document.body && lead) setTaking(true);
    },
    (code) => {
      const hit = scanned(view.leads, parts, code);
      act.clear();
      if (!hit) {
        setHeard(`${code} is no lead and no serial of this job.`);
        return;
      }
      setText("");
      setShow("all");
      setLoom(null);
      choose(hit.address);
      setHeard(`Scanned: ${hit.tag}, ${hit.name}.`);
    },
  );

  // Zoomed in, the region or the chosen port comes to the middle, whichever was chosen last.
  const chosenAt = scene.ports.find((p) => p.address === (chosenPort ?? lead?.port));
  useEffect(() => setRegion(null), [chosenPort, lead?.port]);
  useEffect(() => {
    const el = box.current;
    if (!el || zoom === 0) return;
    const third = BOARD_REGIONS.find((r) => r.name === region);
    const at = third ? { xMm: third.x * scene.widthMm, yMm: third.y * scene.heightMm } : chosenAt;
    el.scrollTo({
      left: (at ? at.xMm : scene.widthMm / 2) * scale + 142 - el.clientWidth / 2,
      top: (at ? at.yMm : scene.heightMm / 2) * scale + 118 - el.clientHeight / 2,
    });
  }, [zoom, scale, chosenAt, region, scene]);
  const open = useMemo(() => {
    if (!lead || !taking) return new Set<string>();
    const node = scene.graph.leads.get(lead.address);
    return new Set(
      node
        ? candidates(scene.graph, node)
            .filter((c) => !c.taken)
            .map((c) => c.port)
        : [],
    );
  }, [lead, taking, scene]);
  const unplanned = view.leads.filter((l) => !l.port && l.loom !== "seat" && !l.out).length;

  return (
    <div className="flex min-h-0 min-w-0 flex-1">
      <section aria-label="Leads" className="flex w-76 shrink-0 flex-col border-r border-rule">
        <h1 className="sr-only">Wiring of {number}</h1>
        <div className="flex h-12 shrink-0 items-center gap-2 px-4">
          <span className="flex-1 text-key font-[650]">{loom ? LOOM_NAME[loom] : "All leads"}</span>
          {loom ? (
            <button type="button" className="key" onClick={() => setLoom(null)}>
              All
            </button>
          ) : null}
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
      <section aria-label="Plan" className="relative flex min-w-0 flex-1 flex-col" data-plan>
        <div
          ref={box}
          role="group"
          aria-label="Drawing of the board"
          className="flex min-h-0 flex-1 touch-pan-x touch-pan-y overflow-auto"
          tabIndex={0}
        >
          <div className="m-auto">
            <BoardPlan
              scene={drawn.scene}
              leads={drawn.leads}
              loom={loom}
              chosen={chosen}
              chosenPort={chosenPort}
              open={open}
              scale={scale}
              onPort={choosePort}
              onDock={chooseDock}
              onAsk={setAsk}
            />
          </div>
        </div>
        {zoom > 0 ? (
          <div className="relative h-0">
            <RegionMap
              scene={scene}
              filled={filled}
              now={region ?? (chosenAt ? regionOfBoard(chosenAt, scene) : "middle centre")}
              onRegion={(name) => {
                setRegion(name);
                setZoom((z) => Math.max(1, z));
              }}
            />
          </div>
        ) : null}
        <WhichPort
          ports={ask}
          nameOf={(a) => scene.graph.ports.get(a)?.name ?? a}
          leads={view.leads}
          onPick={(a) => {
            setAsk([]);
            choosePort(a);
          }}
          onClose={() => setAsk([])}
        />
        <div
          role="toolbar"
          aria-label="Looms and zoom"
          className="flex min-h-12 shrink-0 items-center gap-1 overflow-x-auto border-t border-rule px-2 py-1.5"
        >
          {looms.map((l) => (
            <button
              key={l}
              type="button"
              className="key shrink-0 gap-1 px-1.5 text-second"
              aria-pressed={loom === l}
              onClick={() => setLoom(loom === l ? null : l)}
            >
              <LoomSwatch loom={l} width={22} />
              {LOOM_NAME[l]}
            </button>
          ))}
          <span className="flex-1" />
          {ZOOMS.map((z, i) => (
            <button key={z.name} type="button" className="key shrink-0 px-1.5 text-second" aria-pressed={zoom === i} onClick={() => setZoom(i)}>
              {z.name}
            </button>
          ))}
        </div>
      </section>
      <section aria-label="Inspector" className="flex w-80 shrink-0 flex-col border-l border-rule">
        <div className="region min-h-0 flex-1">
          {view.plan?.ways && !view.plan.stale && !planning.busy && !lead && !chosenPort ? (
            <WaysIn ways={view.plan.ways} scene={scene} number={number} onPlan={runPlan} />
          ) : null}
          <Inspector
            scene={scene}
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
            onChoose={choose}
            onLetGo={() => setTaking(false)}
            onTake={take}
            onAim={(address, port) => {
              choose(address);
              setAim(port);
              setTaking(true);
            }}
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
