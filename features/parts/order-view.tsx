"use client";
import type { ComponentProps } from "react";
import { type Graph, partsOfKind } from "../../core/assembly";
import { orderList } from "../../core/intake";
import { StateMark } from "../../ui/marks";
import { ListItself } from "./list-itself";

/** Without these nothing starts. */
const ESSENTIAL = ["board", "cpu", "cooler", "memory", "supply", "case", "drive"] as const;

const NEED = { wiring: "Wiring", mounting: "Mounting", cooling: "Cooling" } as const;

/** The list itself as it is bought, its sum against the budget, and what is still missing for the machine to go together, each with its reason. */
export function OrderView({
  graph,
  planned,
  aside,
  list,
  came,
}: {
  graph: Graph;
  planned: boolean;
  aside: string[];
  /** What came along with a part, and need not be bought. */
  came: { id: string; with: string }[];
  list: Omit<ComponentProps<typeof ListItself>, "graph">;
}) {
  const along = new Map(came.map((c) => [c.id, c.with]));
  const all = orderList(graph);
  const items = all.filter((i) => !along.has(i.id));
  const here = all.filter((i) => along.has(i.id));
  const lacking = ESSENTIAL.filter((k) => partsOfKind(graph, k).length === 0);
  const complete = lacking.length === 0;
  return (
    <section aria-label="Order list" className="region min-w-0 flex-1 p-5">
      <ListItself graph={graph} {...list} />
      <h2 className="mt-8 text-action font-[650]">
        {items.length === 0
          ? complete
            ? "Nothing is missing besides the parts list"
            : "The parts list is not complete yet"
          : `${items.length} ${items.length === 1 ? "thing" : "things"} besides the parts list`}
      </h2>
      <p className="mb-3 text-second text-soft">
        {planned ? "From the wiring plan, the case and the cooling." : "From the case and the cooling. What the wiring wants comes with its plan."}
      </p>
      {complete ? null : (
        <p className="mb-3">
          The list has no {lacking.slice(0, -1).join(", ")}
          {lacking.length > 1 ? " and no " : ""}
          {lacking.at(-1)}. What is missing besides can only be told once they are chosen.
        </p>
      )}
      {(["wiring", "mounting", "cooling"] as const).map((need) => {
        const mine = items.filter((i) => i.needFor === need);
        if (mine.length === 0) return null;
        return (
          <div key={need} className="mb-5">
            <h3 className="text-key font-[650]">{NEED[need]}</h3>
            <ul>
              {mine.map((i) => (
                <li key={i.id} className="flex min-h-12 items-center gap-4 border-t border-rule py-1">
                  <span className="mono w-10 shrink-0 text-right">{i.count} ×</span>
                  <span className="min-w-0 flex-1">
                    <span className="block">{i.what}</span>
                    <span className="block text-second text-soft">{i.because}</span>
                  </span>
                  <span className="w-32 shrink-0 text-second">
                    {i.from === "order" ? (
                      <StateMark state="waiting" size={13} word="to order" />
                    ) : (
                      <StateMark state="planned" size={13} word="from the shelf" />
                    )}
                  </span>
                </li>
              ))}
            </ul>
          </div>
        );
      })}
      {here.length > 0 ? (
        <div className="mb-5">
          <h3 className="text-key font-[650]">Came along</h3>
          <ul>
            {here.map((i) => (
              <li key={i.id} className="flex min-h-10 items-center gap-4 border-t border-rule">
                <span className="mono w-10 shrink-0 text-right">{i.count} ×</span>
                <span className="min-w-0 flex-1">{i.what}</span>
                <span className="text-second text-soft">with {along.get(i.id)}</span>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      {aside.length > 0 ? (
        <div>
          <h3 className="text-key font-[650]">Kept aside at intake</h3>
          <p className="text-second text-soft">Lines that no part type of the shelf answered to, in their own words.</p>
          <ul>
            {aside.map((line, i) => (
              <li key={`${String(i)}${line}`} className="border-t border-rule py-1.5">
                {line}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
    </section>
  );
}
