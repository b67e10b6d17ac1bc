"use client";
import { type Graph, typeLookup } from "../../core/assembly";
import { type Loosening, type Ways, wayWords } from "../../core/wiring";
import { Button } from "../../ui/button";
import { fixAction, orderMoreAction } from "../actions/wiring";
import { useAct } from "../frame/use-act";

/** What the wiring would need for everything wanted to find its place, and one press where the shop can see to it. */
export function WaysIn({ ways, graph, number, onPlan }: { ways: Ways; graph: Graph; number: string; onPlan: () => void }) {
  const act = useAct();
  const types = typeLookup(graph.build, []);
  const name = (end: string) => {
    const lead = graph.leads.get(end);
    return lead ? `${lead.tag} (${lead.name})` : (graph.ports.get(end)?.name ?? end);
  };
  const items = ways.needs.flatMap((n) => (n.kind === "accessory" ? [{ type: n.type, count: n.count }] : []));
  const release = ways.needs.find((n): n is Loosening & { kind: "release" } => n.kind === "release");
  const only = items.length === ways.needs.length;
  const from = release && graph.ofLead.get(release.lead)?.port;
  return (
    <section aria-labelledby="ways-in" className="border-b border-rule p-4">
      <h2 id="ways-in" className="text-key font-[650]">
        {ways.lets.length + ways.left.length === 1 ? "One wanted end stays free" : `${ways.lets.length + ways.left.length} wanted ends stay free`}
      </h2>
      {ways.needs.length > 0 ? (
        <>
          <p className="mt-1 text-second">
            {ways.lets.length === 1 ? `${name(ways.lets[0] ?? "")} finds its place` : `${ways.lets.length} of them find their places`} with this
            {ways.proved ? ", and with nothing less" : "; whether less would do is not yet proved"}:
          </p>
          <ul className="mt-1 list-disc pl-5">
            {ways.needs.map((n) => (
              <li key={JSON.stringify(n)}>{wayWords(graph, types, n)}</li>
            ))}
          </ul>
          {items.length > 0 ? (
            <Button
              className="mt-2"
              disabled={act.pending}
              onClick={() =>
                act.run(
                  () => orderMoreAction({ number, items }),
                  () => {
                    onPlan();
                    return "On the order list. Planning with it.";
                  },
                )
              }
            >
              {only ? "Order it and plan again" : "Order what can be ordered, plan again"}
            </Button>
          ) : null}
          {release && from ? (
            <Button
              className="mt-2"
              disabled={act.pending}
              onClick={() =>
                act.run(
                  () => fixAction({ number, lead: release.lead, port: from, fixed: false }),
                  () => {
                    onPlan();
                    return "Let go. Planning again.";
                  },
                )
              }
            >
              Give it up and plan again
            </Button>
          ) : null}
        </>
      ) : null}
      {ways.left.length > 0 ? (
        <p className="mt-2 text-second">
          No accessory, longer lead or higher limit helps {ways.left.slice(0, 6).map(name).join(", ")}
          {ways.left.length > 6 ? ` and ${ways.left.length - 6} more` : ""}: see {ways.left.length > 1 ? "the reason at each" : "its reason"}.
        </p>
      ) : null}
      {act.sentence ? (
        <p role="status" className="mt-2 text-second">
          {act.sentence}
        </p>
      ) : null}
    </section>
  );
}
