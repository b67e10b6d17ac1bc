"use client";
import { type KeyboardEvent, useEffect, useMemo, useRef } from "react";
import type { Graph } from "../../core/assembly";
import { hungOn, panelPinout } from "../../core/brings";
import { family, headerLimit } from "../../core/catalogue";
import type { Finding } from "../../core/checks";
import { behindWords, cutoutsFor, routesOf, routeWords } from "../../core/routes";
import type { LeadRow } from "../../server/views/lead-rows";
import { Button } from "../../ui/button";
import { PinPicture } from "../../ui/drawing/pin-picture";
import { Fold } from "../../ui/fold";
import { LoomSwatch } from "../../ui/loom";
import { SEVERITY_WORD, SeverityShape, StateMark } from "../../ui/marks";
import { Meter } from "../../ui/meter";
import { type Candidate, candidates } from "../shared/candidates";
import { CostWords, sameSpot, usePlaceCosts } from "./place-costs";

export interface InspectorProps {
  graph: Graph;
  lead: LeadRow | undefined;
  portAddress: string | null;
  leads: LeadRow[];
  findings: Finding[];
  taking: boolean;
  /** The port that the taken lead was asked for; its place comes first to hand. */
  aim: string | null;
  busy: boolean;
  number: string;
  onPlace: (lead: string, c: Candidate) => void;
  onUnfix: (l: LeadRow) => void;
  /** Leads it through a cut-out, or the usual way again. */
  onThrough: (l: LeadRow, cutout: string | null) => void;
  onChoose: (lead: string) => void;
  onLetGo: () => void;
  onTake: () => void;
  /** Takes a lead for this port. */
  onAim: (lead: string, port: string) => void;
}

/** Why here, the pins, the meters, and where else it could go. */
export function Inspector(p: InspectorProps) {
  if (p.lead) return <LeadInspector {...p} lead={p.lead} />;
  if (p.portAddress) return <PortInspector {...p} portAddress={p.portAddress} />;
  return (
    <div className="p-4">
      <h2 className="text-key font-[650]">Choose a lead or a port</h2>
      <p className="mt-2">Its route, its pins and the reason for its place appear here.</p>
      <p className="mt-4 text-second text-soft">
        Arrows move in the list, Enter takes a lead and then places it, a scan finds it. <span className="mono font-semibold">?</span> shows every
        key.
      </p>
      <BehindTheTray graph={p.graph} />
    </div>
  );
}

/** Whether the panel closes over all leads, full cut-outs, and what is to be secured. */
function BehindTheTray({ graph }: { graph: Graph }) {
  const routes = useMemo(() => routesOf(graph), [graph]);
  const words = behindWords(graph, routes);
  if (routes.routes.length === 0 || words.length + routes.joints.length === 0) return null;
  return (
    <section aria-label="Behind the tray" className="mt-6 flex flex-col gap-2">
      <h3 className="font-semibold">Behind the tray</h3>
      {words.map((w) => (
        <p key={w}>{w}</p>
      ))}
      {routes.joints.length > 0 ? (
        <Fold word={`${routes.joints.length} ${routes.joints.length === 1 ? "joint" : "joints"} to secure`}>
          <ul className="mt-1 text-second">
            {routes.joints.map((j) => (
              <li key={j.lead}>{j.words}</li>
            ))}
          </ul>
        </Fold>
      ) : null}
    </section>
  );
}

/** Arrows go from button to button of a section. */
function stepThrough(e: KeyboardEvent<HTMLButtonElement>): void {
  if (e.key !== "ArrowDown" && e.key !== "ArrowUp") return;
  e.preventDefault();
  e.stopPropagation();
  const all = [...(e.currentTarget.closest("ul, section")?.querySelectorAll("button") ?? [])];
  all[all.indexOf(e.currentTarget) + (e.key === "ArrowDown" ? 1 : -1)]?.focus();
}

function Meters({ graph, portAddress }: { graph: Graph; portAddress: string }) {
  const node = graph.ports.get(portAddress);
  const on = node && hungOn(graph, node);
  if (!node || !on || !["fans", "lighting"].includes(family(node.port.family).loom)) return null;
  const limit = on.limitA ?? headerLimit(node.port).currentA;
  return (
    <div className="flex flex-col gap-2">
      {limit !== undefined ? <Meter label={`Current on ${on.name}`} value={on.currentA} most={limit} unit="A" /> : null}
      {on.leds > 0 ? (
        <p className="text-second">
          {on.leds} LEDs on {on.name}.
        </p>
      ) : null}
    </div>
  );
}

function LeadInspector({
  graph,
  lead,
  findings,
  taking,
  aim,
  busy,
  number,
  onPlace,
  onUnfix,
  onThrough,
  onLetGo,
  onTake,
}: InspectorProps & { lead: LeadRow }) {
  const node = graph.leads.get(lead.address);
  const list = node ? candidates(graph, node) : [];
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!taking) return;
    // The places come to the top: all that can be chosen is to be seen at once.
    first.current?.closest("section")?.scrollIntoView({ block: "start" });
    first.current?.focus({ preventScroll: true });
    first.current?.scrollIntoView({ block: "nearest" });
  }, [taking]);
  const firstAt = Math.max(
    0,
    list.findIndex((c) => c.port === aim && !c.taken),
  );
  const costs = usePlaceCosts(number, lead, list, taking);
  // As good as the best is no next best: another branch of the same splitter, say.
  const next = costs.rows && [...costs.rows].filter((r) => r.holds && !r.best).sort((a, b) => a.rank - b.rank)[0];
  const nextName = next && list.find((c) => sameSpot(c, next))?.name;
  const port = lead.port ? graph.ports.get(lead.port) : undefined;
  const route = routesOf(graph).byLead.get(lead.address);
  const cutouts = useMemo(() => cutoutsFor(graph, lead.address), [graph, lead.address]);
  const mine = findings.filter((f) => f.ends.includes(lead.address));
  const locked = lead.state === "plugged" || lead.state === "checked";
  return (
    <div className="flex flex-col gap-3 p-4">
      <div>
        <div className="flex items-center gap-2">
          <LoomSwatch loom={lead.loom} />
          <span className="mono font-semibold">{lead.tag}</span>
          <StateMark state={lead.state} />
        </div>
        <h2 className="text-action font-[650]">{lead.name}</h2>
        <p>
          {lead.portName ? (
            <>
              goes into <span className="mono font-semibold">{lead.portName}</span>
              {lead.plannedName ? (
                <>
                  , planned <span className="mono">{lead.plannedName}</span>. It works there; keep it, or move it back.
                </>
              ) : null}
            </>
          ) : (
            "has no port."
          )}
        </p>
      </div>
      {mine.map((f) => (
        <p key={f.id} className="flex gap-2">
          <span className="pt-1">
            <SeverityShape severity={f.severity} size={14} />
          </span>
          <span>
            <strong>{SEVERITY_WORD[f.severity]}.</strong> {f.message}
          </span>
        </p>
      ))}
      <section aria-label="Why here" id="why" tabIndex={-1}>
        <h3 className="font-semibold">{lead.port ? "Why here" : "Why free"}</h3>
        <p>
          {lead.fixed ? "Fixed here by hand. " : ""}
          {(lead.port ? lead.why : lead.free) || (lead.fixed ? "" : "Placed by hand.")}
        </p>
      </section>
      {route ? (
        <section aria-label="How it runs">
          <h3 className="font-semibold">How it runs</h3>
          {routeWords(graph, route).map((w) => (
            <p key={w}>{w}</p>
          ))}
          {route.way && cutouts.length > 0 ? (
            <label className="mt-1 flex items-center gap-2 text-second">
              <span className="shrink-0">Lead it</span>
              <select
                className="field min-w-0 flex-1"
                disabled={busy}
                value={route.asked ?? ""}
                onChange={(e) => onThrough(lead, e.target.value || null)}
              >
                <option value="">the usual way</option>
                {cutouts.map((c) => (
                  <option key={c.id} value={c.id}>
                    through the cut-out {c.label}
                  </option>
                ))}
              </select>
            </label>
          ) : null}
        </section>
      ) : null}
      {lead.port ? <Meters graph={graph} portAddress={lead.port} /> : null}
      {port ? (
        <section aria-label="Pins" id="pins" tabIndex={-1}>
          <h3 className="mb-1 font-semibold">
            Pins of <span className="mono">{port.port.label}</span>
          </h3>
          <PinPicture
            family={family(port.port.family)}
            pins={port.port.family === "panel-block" ? (lead.place ?? []) : []}
            onBoard={port.part.type.kind === "board"}
            {...(port.port.family === "panel-block" ? { signals: panelPinout(port.port) } : {})}
          />
        </section>
      ) : null}
      <section aria-label="Where it could go">
        <h3 className="font-semibold">{locked ? "It is plugged" : "Where it could go"}</h3>
        {locked ? <p>What is plugged stays until the bench records it as taken out.</p> : null}
        {!locked && lead.fixed ? (
          <Button className="my-1" disabled={busy} onClick={() => onUnfix(lead)}>
            Let the planner decide again
          </Button>
        ) : null}
        {!locked && !taking ? (
          <Button className="my-1" onClick={onTake}>
            Take it, to place it elsewhere
          </Button>
        ) : null}
        {!locked && taking ? (
          <Button className="my-1" onClick={onLetGo}>
            Let go
          </Button>
        ) : null}
        {!locked && taking ? (
          <p role="status" className="text-second">
            {costs.said || (next && nextName ? `Next best: ${nextName}, ${next.words}.` : costs.rows ? "No other place is second best." : "")}
          </p>
        ) : null}
        {!locked && list.length === 0 ? <p>No port of this build takes it.</p> : null}
        {!locked && taking ? (
          <ul className="mt-1 flex flex-col gap-1">
            {list.map((c, i) => (
              <li key={`${c.port}${c.place?.join(".") ?? ""}`}>
                <Button
                  ref={i === firstAt ? first : undefined}
                  disabled={busy}
                  className="w-full justify-start text-left font-normal"
                  aria-current={c.here || c.port === aim}
                  onClick={() => onPlace(lead.address, c)}
                  onKeyDown={stepThrough}
                >
                  <span className="min-w-0">
                    <span className="mono font-semibold">{c.name}</span>
                    {c.here ? " (here)" : c.port === aim ? " (asked for)" : ""}
                    <span className="block text-second text-soft">{[c.words, c.taken ? `holds ${c.taken}` : ""].filter(Boolean).join("; ")}</span>
                    <CostWords rows={costs.rows} at={c} />
                  </span>
                </Button>
              </li>
            ))}
          </ul>
        ) : null}
      </section>
    </div>
  );
}

function PortInspector({ graph, portAddress, leads, onChoose, onAim }: InspectorProps & { portAddress: string }) {
  const node = graph.ports.get(portAddress);
  if (!node) return null;
  const here = leads.filter((l) => l.port === portAddress);
  const fits = leads.filter((l) => {
    const n = graph.leads.get(l.address);
    const stays = l.state === "plugged" || l.state === "checked";
    return n && !stays && !here.includes(l) && candidates(graph, n).some((c) => c.port === portAddress);
  });
  return (
    <div className="flex flex-col gap-3 p-4">
      <h2 className="text-action font-[650]">
        <span className="mono">{node.name}</span>
      </h2>
      <p>{family(node.port.family).name}.</p>
      <section aria-label="In it">
        <h3 className="font-semibold">In it</h3>
        {here.length === 0 ? (
          <p>Free.</p>
        ) : (
          here.map((l) => (
            <Button key={l.address} className="mt-1 w-full justify-start" onClick={() => onChoose(l.address)}>
              <span className="mono">{l.tag}</span>
              {l.name}
              <StateMark state={l.state} size={13} />
            </Button>
          ))
        )}
      </section>
      <Meters graph={graph} portAddress={portAddress} />
      <PinPicture
        family={family(node.port.family)}
        pins={[]}
        onBoard={node.part.type.kind === "board"}
        {...(node.port.family === "panel-block" ? { signals: panelPinout(node.port) } : {})}
      />
      {fits.length > 0 ? (
        <section aria-label="What could go in" id="fits">
          <h3 className="font-semibold">What could go in</h3>
          <p className="text-second">Take one, and what it would cost here is told before it is placed.</p>
          {fits.slice(0, 12).map((l) => (
            <Button
              key={l.address}
              className="mt-1 w-full justify-start font-normal"
              onClick={() => onAim(l.address, portAddress)}
              onKeyDown={stepThrough}
            >
              <span className="mono">{l.tag}</span>
              <span className="truncate">{l.name}</span>
            </Button>
          ))}
        </section>
      ) : null}
    </div>
  );
}
