"use client";
import { useCallback, useMemo, useReducer, useState } from "react";
import { assumedOn } from "../../core/assembly";
import { LOOM_NAME, LOOMS } from "../../core/catalogue";
import { sceneOf } from "../../core/scene";
import { lower } from "../../core/words";
import type { JobData } from "../../server/views/data";
import type { Had } from "../../server/views/had";
import type { LeadRow } from "../../server/views/lead-rows";
import { Button } from "../../ui/button";
import { fixAction, leadThroughAction } from "../actions/wiring";
import { useTakeBack } from "../device/use-take-back";
import { useKeys } from "../frame/keys";
import { useSlice } from "../frame/slices";
import { useAct } from "../frame/use-act";
import { useAddress } from "../frame/use-address";
import { useSteady } from "../frame/use-steady";
import { type Candidate, candidates, graphOf } from "../shared/candidates";
import { WiringFiles } from "./files";
import { FindLeads } from "./find-field";
import { findLeads, findPorts, type Group, groupLeads, type Show, scanned } from "./find-leads";
import { Inspector } from "./inspector";
import { LeadList } from "./lead-list";
import { MachinePane } from "./machine-pane";
import { PlanFoot } from "./plan-foot";
import { Schools } from "./schools";
import { usePlan } from "./use-plan";
import { WaysIn } from "./ways-in";
import { fromAddress, STILL, toAddress, wiringAfter } from "./wiring-state";

export function WiringScreen({ first }: { first: Had<JobData<"wiring">> }) {
  const { data: view } = useSlice(["job", first.data.head.number, "wiring"], first);
  const { number } = view.head;
  const graph = useMemo(() => graphOf(view.build), [view.build]);
  const scene = useMemo(() => sceneOf(graph), [graph]);
  const looms = useMemo(() => LOOMS.filter((l) => l !== "seat"), []);
  const [state, happen] = useReducer(wiringAfter, STILL);
  const { hand, loom, zoom } = state;
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
  const act = useAct();
  const planning = usePlan(number, view.isRunning);
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
  const foundPorts = useMemo(() => findPorts(graph, text), [graph, text]);
  const lead = view.leads.find((l) => l.address === chosen);
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
      () =>
        leadThroughAction({ number, lead: l.address, cutout, saw: { cutout: view.build.ways?.find((w) => w.lead === l.address)?.cutout ?? null } }),
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
      ...looms.map((l, i) => ({ keys: [`${i + 1}`], word: `Only ${lower(LOOM_NAME[l])}`, run: () => happen({ do: "loom", loom: l }) })),
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
  const assumptions = useMemo(() => assumedOn(graph), [graph]);
  const wanted = view.leads.filter((l) => l.loom !== "seat" && !l.out);

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
      <MachinePane
        scene={scene}
        graph={graph}
        leads={view.leads}
        state={state}
        happen={happen}
        open={open}
        looms={looms}
        onPort={choosePort}
        onPart={choosePart}
        onLead={choose}
      />
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
          leads={wanted.length}
          planned={wanted.filter((l) => l.port).length}
          assumptions={assumptions}
          onPlan={runPlan}
        />
      </section>
    </div>
  );
}
