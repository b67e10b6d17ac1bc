import { LOOM_NAME, LOOMS } from "../../core/catalogue";
import type { JobView } from "../../server/views";
import { StateMark } from "../../ui/marks";
import { fullName } from "../parts/full-name";

/** The record so far: what is in it, what is connected where, what stays free and why, what was seen. */
export function HandoverScreen({
  view,
}: {
  view: Pick<JobView, "build" | "leads" | "free" | "power" | "seen" | "plan" | "head" | "faults" | "setAside" | "tied">;
}) {
  const types = new Map(view.build.partTypes.map((t) => [t.id, t]));
  const unseen = view.power.lines.filter((l) => !view.seen[l.id]);
  return (
    <section aria-label="Record of the job" tabIndex={0} className="region min-w-0 flex-1 px-6 py-4">
      <h1 className="text-verdict font-semibold">
        {unseen.length === 0
          ? "Everything on the first-boot sheet has been seen."
          : `${unseen.length} of ${view.power.lines.length} checks have not been made.`}
      </h1>
      <div className="mt-4 grid grid-cols-2 gap-8">
        <section>
          <h2 className="text-key font-[650]">What is in it</h2>
          <ul>
            {view.build.parts.map((p) => (
              <li key={p.id} className="flex gap-3 border-t border-rule py-1.5">
                <span className="flex-1">
                  {fullName(types.get(p.type) ?? { maker: "", name: p.type })}
                  {p.label ? `, ${p.label}` : ""}
                </span>
                <span className="mono text-second">{p.serial ?? "no serial"}</span>
              </li>
            ))}
          </ul>
          <h2 className="mt-6 text-key font-[650]">What stays unconnected, and why</h2>
          <ul>
            {view.free.length === 0 ? (
              <li>Nothing.</li>
            ) : (
              view.free.map((f) => (
                <li key={f.end} className="border-t border-rule py-1.5">
                  <span className="font-semibold">{f.what}</span>. {f.reason}
                </li>
              ))
            )}
          </ul>
          {view.tied.length > 0 ? (
            <>
              <h2 className="mt-6 text-key font-[650]">Tied back</h2>
              <ul>
                {view.tied.map((t) => (
                  <li key={t.end} className="border-t border-rule py-1.5">
                    <span className="font-semibold">{t.what}</span>. {t.reason}
                  </li>
                ))}
              </ul>
            </>
          ) : null}
          {view.setAside.length > 0 ? (
            <>
              <h2 className="mt-6 text-key font-[650]">What was set aside, by whom and why</h2>
              <ul>
                {view.setAside.map((s) => (
                  <li key={`${s.at}${s.message}`} className="border-t border-rule py-1.5">
                    {s.message} <span className="font-semibold">{s.by}</span>: {s.reason}
                    {s.still ? "" : " (Found no more.)"}
                  </li>
                ))}
              </ul>
            </>
          ) : null}
          <h2 className="mt-6 text-key font-[650]">In the cable bag</h2>
          <p>{view.plan && view.plan.inBag.length > 0 ? view.plan.inBag.join(", ") : "Nothing yet."}</p>
        </section>
        <section>
          <h2 className="text-key font-[650]">What is connected where</h2>
          {LOOMS.map((loom) => {
            const mine = view.leads.filter((l) => l.loom === loom && l.port);
            return mine.length === 0 ? null : (
              <div key={loom} className="mt-2">
                <h3 className="font-semibold">{LOOM_NAME[loom]}</h3>
                <ul>
                  {mine.map((l) => (
                    <li key={l.address} className="flex items-center gap-3 border-t border-rule py-1">
                      <span className="mono w-12 text-second">{l.tag}</span>
                      <span className="flex-1 truncate">{l.name}</span>
                      <span className="mono text-second">
                        {l.portName}
                        {l.place ? ` ${l.place.join(" ")}` : ""}
                      </span>
                      <span className="w-20 text-second">
                        <StateMark state={l.state} size={13} />
                      </span>
                    </li>
                  ))}
                </ul>
              </div>
            );
          })}
        </section>
      </div>
    </section>
  );
}
