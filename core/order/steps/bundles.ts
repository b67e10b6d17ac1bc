import { type LeadNode, naturally } from "../../assembly";
import { LOOM_NAME, type Loom } from "../../catalogue";
import { backCloses, type Route, routesOf } from "../../routes";
import { lower } from "../../words";
import { CAUTION, minutesOf, PER_LEAD } from "../practice";
import { list, mountId, plugId, plural, type Site } from "./site";

interface Bundle {
  loom: Loom;
  routes: Route[];
}

/** Leads of one loom that run behind the tray. */
function bundles(site: Site): Bundle[] {
  const by = new Map<Loom, Route[]>();
  for (const r of routesOf(site.graph).routes) {
    if (r.loom === "seat" || !r.way?.stretches.some((s) => s.sheet === "behind")) continue;
    // Joined on the table: nothing of it is led anywhere by itself.
    if (site.works.get(plugId(r.lead))?.postures.length === 0 && r.loom === "fans") continue;
    const has = by.get(r.loom);
    if (has) has.push(r);
    else by.set(r.loom, [r]);
  }
  return [...by].map(([loom, routes]) => ({ loom, routes: [...routes].sort((a, z) => naturally(a.lead, z.lead)) }));
}

const round = (n: number) => Math.round(n * 2) / 2;

/** Where a case says nothing of its tie points, leads are tied to one another and to what is there. */
const tiedAt = (points: number) => (points > 0 ? `${plural(points, "tie point", "tie points")}.` : "Tied to what the tray has for it.");

/** Leads led behind the tray, and dressed when they are plugged. */
export function bundleSteps(site: Site): void {
  const { graph, add, edge, policy } = site;
  if (!site.shell) return;
  const routes = routesOf(graph);
  const cut = new Map(routes.fill.flatMap((c) => c.leads.map((l) => [l, c.label] as const)));
  const all = bundles(site);
  all.forEach(({ loom, routes: of }, i) => {
    const leads = of.map((r) => r.lead);
    const nodes = leads.flatMap((a) => graph.leads.get(a) ?? []);
    const name = lower(LOOM_NAME[loom]);
    const through = [...new Set(leads.flatMap((l) => cut.get(l) ?? []))];
    const id = `route:${loom}`;
    add({
      id,
      kind: "route",
      measure: "route",
      title: `Lead the ${name} behind the tray: ${plural(leads.length, "lead", "leads")}`,
      detail: `${list(
        nodes.map((n) => n.tag).sort(naturally),
        12,
      )}${through.length > 0 ? `, through ${list(through)}` : ""}. ${nodes.some((n) => n.lead.family === "cpu-4+4") ? "4+4 plugs pass a narrow gap split. " : ""}Laid, not tied.`,
      rightWhen: "Each end lies where it is plugged, none is under the supply or before a fan",
      minutes: { handsOn: round(minutesOf("route").handsOn + leads.length * PER_LEAD.route), unattended: 0 },
      postures: ["behind-up"],
      stage: 450,
      along: i,
      where: { at: "led" },
      leads,
      // Whoever plugged them has led them.
      done: site.isDone(id) || leads.every((l) => site.works.get(plugId(l))?.done),
    });
    for (const l of leads) edge("needs", id, plugId(l), "it is led there first");
    const owners = new Set(nodes.flatMap((n) => mountOf(site, n)));
    for (const o of owners) edge("needs", o, id, "its leads come from there");
    const tied = of.filter((r) => r.untied === undefined);
    if (tied.length === 0) return;
    const folds = [...new Set(tied.flatMap((r) => (r.fold ? [r.fold.words] : [])))];
    const points = new Set(tied.flatMap((r) => r.ties)).size;
    const held = (how: "tied" | "taped", words: string) => {
      const plugs = routes.joints.flatMap((j) => (j.how === how && leads.includes(j.lead) ? [j.plug] : []));
      return plugs.length > 0 ? `${words}: ${list(plugs)}. ` : "";
    };
    add({
      id: `dress:${loom}`,
      kind: "dress",
      measure: "dress",
      title: `Dress the ${name}: ${plural(tied.length, "lead", "leads")}`,
      detail: `${held("tied", "Tie to the tray")}${held("taped", "Secure with tape or a clip")}${folds.length > 0 ? `Fold what is too long ${list(folds, 3)}. ` : ""}${policy.dressing === "after-leads" ? "Laid flat, held by a few loose ties." : tiedAt(points)}`,
      rightWhen: "Flat, pushed back, nothing before a fan",
      minutes: { handsOn: round(minutesOf("dress").handsOn + tied.length * PER_LEAD.dress), unattended: 0 },
      postures: ["behind-up"],
      stage: 850,
      along: i,
      where: { at: "dressed" },
      leads: tied.map((r) => r.lead),
      anew: `${plural(Math.max(1, points), "tie", "ties")} of the ${name}`,
      ...(policy.dressing === "after-leads" ? {} : { caution: CAUTION.cut }),
    });
    for (const r of tied) edge("needs", plugId(r.lead), `dress:${loom}`, "both of its ends are plugged first");
  });
  if (policy.dressing === "after-leads" && all.some((b) => b.routes.some((r) => !r.untied))) {
    const tied = all.flatMap((b) => b.routes.filter((r) => !r.untied));
    add({
      id: "tie",
      kind: "dress",
      measure: "tie",
      title: "Tie the leads for good and cut the temporary ties",
      detail: `${tiedAt(new Set(tied.flatMap((r) => r.ties)).size)}${all.some((b) => b.routes.some((r) => r.untied)) ? " SATA data stays untied." : ""}`,
      rightWhen: backCloses(routes),
      minutes: { handsOn: round(minutesOf("tie").handsOn + tied.length * PER_LEAD.tie), unattended: 0 },
      postures: ["behind-up"],
      stage: 920,
      where: { at: "tie" },
      caution: CAUTION.cut,
      leads: tied.map((r) => r.lead),
      anew: "its ties",
    });
    for (const { loom } of all) if (site.works.has(`dress:${loom}`)) edge("needs", `dress:${loom}`, "tie", "laid before it is tied");
  }
}

/** What must be in its place before this lead can be led. */
function mountOf(site: Site, n: LeadNode): string[] {
  const owner = n.part.cable?.owner ?? n.part.id;
  if (site.radiators.some((r) => r.cooler.id === owner || r.fans.some((f) => f.id === owner))) return [];
  const kind = site.graph.parts.get(owner)?.type.kind;
  return kind !== undefined && ["fan", "lighting", "hub", "usb-hub", "supply"].includes(kind) ? [mountId(owner)] : [];
}
