"use client";
import type { WiringRows } from "../../server/parts/what-if";
import { Fold } from "../../ui/fold";

/** Two plans side by side: what decides, what moves, what comes and goes. */
export function WiringDifference({
  rows,
  before,
  after,
  under,
}: {
  rows: WiringRows;
  before: string;
  after: string;
  /** The level of the heading that it stands under. */
  under: 2 | 3;
}) {
  const Heading = under === 2 ? "h3" : "h4";
  const better =
    rows.better === "neither"
      ? `Both wirings are equally good${rows.levels.length > 0 ? " but for the length" : ""}.`
      : `The wiring is better ${rows.better === "after" ? after : before}: ${rows.levels[0]?.words}, ${rows.levels[0]?.before} ${before}, ${rows.levels[0]?.after} ${after}.`;
  return (
    <div className="flex flex-col gap-2">
      <Heading className="font-semibold">Wiring</Heading>
      <p>
        {better}
        {rows.proved ? "" : " Not yet proved: the time ran out."}
      </p>
      {rows.levels.length > 0 ? (
        <table className="w-full max-w-xl">
          <thead>
            <tr className="text-left text-second text-soft">
              <th className="font-normal">What counts, in its order</th>
              <th className="text-right font-normal">{before}</th>
              <th className="text-right font-normal">{after}</th>
            </tr>
          </thead>
          <tbody>
            {rows.levels.map((l) => (
              <tr key={l.level} className="border-t border-rule">
                <th scope="row" className="py-1 text-left font-normal">
                  {l.words}
                </th>
                <td className="mono text-right">{l.before}</td>
                <td className="mono text-right">
                  {l.after} <span className="font-sans text-second text-soft">{l.way}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      <Words title={`Only ${after}`} list={[...rows.accessories.come, ...rows.inBag.come.map((c) => `${c} stays in the bag`)]} />
      <Words title={`Only ${before}`} list={[...rows.accessories.gone, ...rows.inBag.gone.map((c) => `${c} stays in the bag`)]} />
      {rows.moves.length > 0 ? (
        <Fold
          word={
            <>
              {rows.moves.length} {rows.moves.length === 1 ? "lead" : "leads"} elsewhere
            </>
          }
          open={rows.moves.length <= 12}
        >
          <ul>
            {rows.moves.slice(0, 200).map((m) => (
              <li key={m.lead} className="border-t border-rule py-1 text-second">
                <span className="mono">{m.tag}</span> {m.name}: {m.from ?? "free"}, then {m.to ?? "free"}
              </li>
            ))}
          </ul>
        </Fold>
      ) : null}
    </div>
  );
}

function Words({ title, list }: { title: string; list: string[] }) {
  if (list.length === 0) return null;
  return (
    <p className="text-second">
      <strong className="font-semibold">{title}:</strong> {list.slice(0, 12).join(", ")}
      {list.length > 12 ? ` and ${list.length - 12} more` : ""}.
    </p>
  );
}
