import type { ListAnswer } from "../../server/job/read-list";
import { KIND_WORD } from "../shared/kinds";

/** What a pasted list was understood as, and the lines that are kept aside. */
export function Understood({
  answer,
  chosen,
  onChoose,
  own,
  onOwn,
}: {
  answer: ListAnswer;
  chosen: Record<string, string>;
  onChoose: (text: string, id: string) => void;
  own: ReadonlySet<string>;
  onOwn: (type: string) => void;
}) {
  return (
    <>
      {answer.aside.length > 0 ? (
        <div>
          <h3 className="font-semibold">
            {answer.aside.length} {answer.aside.length === 1 ? "line" : "lines"} kept aside
          </h3>
          <ul>
            {answer.aside.slice(0, 200).map((a) => (
              <li key={a.line} className="flex min-h-10 items-center gap-3 border-t border-rule py-1">
                <span className="mono w-10 text-right text-soft">{a.line}</span>
                <span className="min-w-0 flex-1">
                  {a.text} <span className="text-second text-soft">{a.because}</span>
                </span>
                {a.near.length > 0 ? (
                  <label>
                    <span className="sr-only">What line {a.line} means</span>
                    <select className="field" value={chosen[a.text] ?? ""} onChange={(e) => onChoose(a.text, e.target.value)}>
                      <option value="">keep aside</option>
                      {a.near.map((n) => (
                        <option key={n.id} value={n.id}>
                          {n.name}
                        </option>
                      ))}
                    </select>
                  </label>
                ) : null}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <div>
        <h3 className="font-semibold">{answer.matched.length} understood</h3>
        <ul>
          {answer.matched.slice(0, 200).map((m) => (
            <li key={m.line} className="flex min-h-9 items-center gap-3 border-t border-rule">
              <span className="mono w-10 text-right text-soft">{m.line}</span>
              <span className="mono w-10 text-right">{m.count} ×</span>
              <span className="min-w-0 flex-1 truncate">{m.name}</span>
              {m.serial ? <span className="mono text-second text-soft">{m.serial}</span> : null}
              <span className="w-28 text-second text-soft">{KIND_WORD[m.kind] ?? m.kind}</span>
              <label className="flex items-center gap-2 text-second">
                <input type="checkbox" checked={own.has(m.type)} onChange={() => onOwn(m.type)} />
                client's own
              </label>
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}
