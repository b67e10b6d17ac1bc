"use client";
import { useEffect, useState } from "react";
import type { ReadyView } from "../../server/handover/recorded";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import { prepareAction } from "../actions/handover";
import { addPhoto, PHOTO_TYPES } from "../device/photos";
import { type Acting, useAct } from "../frame/use-act";

/** What goes along and how: collected or sent, the bag, the photo set, the safety test. */
export function GoesAlong({ number, ready, closed }: { number: string; ready: ReadyView; closed: boolean }) {
  const act = useAct();
  const { leaving, bag, packing } = ready;
  // What was pressed shows at once, and is what the record says as soon as it answers.
  const [pressed, setPressed] = useState<Record<string, string | boolean>>({});
  useEffect(() => {
    if (ready) setPressed({});
  }, [ready]);
  const press = (key: string, to: string | boolean, input: object) => {
    setPressed((p) => ({ ...p, [key]: to }));
    act.run(
      () => prepareAction({ number, ...input }),
      () => "",
      () => setPressed(({ [key]: _, ...others }) => others),
    );
  };
  const way = pressed.way ?? leaving.way;
  const tick = (word: string, done: { by: string } | null, to: (is: boolean) => object, because?: string) => (
    <li key={word} className="border-t border-rule py-1">
      <label className="flex min-h-8 items-start gap-3">
        <input
          type="checkbox"
          className="mt-1.5 size-4"
          checked={pressed[word] === undefined ? done !== null : pressed[word] === true}
          disabled={closed}
          onChange={(e) => press(word, e.target.checked, to(e.target.checked))}
        />
        <span className="min-w-0 flex-1 py-0.5">
          {word} {because ? <span className="text-second text-soft">{because}</span> : null}
        </span>
        {done ? <span className="py-1 text-second text-soft">{done.by}</span> : null}
      </label>
    </li>
  );
  return (
    <section aria-label="What goes along" className="min-w-0">
      <fieldset disabled={closed}>
        <legend className="text-key font-[650]">How it leaves</legend>
        <div className="mt-1 flex flex-wrap gap-x-6 gap-y-1">
          {(["collected", "travels"] as const).map((w) => (
            <label key={w} className="flex min-h-8 items-center gap-2">
              <input type="radio" name="way" checked={way === w} onChange={() => press("way", w, { way: w })} />
              {w === "collected" ? "It is collected" : "It travels with a carrier"}
            </label>
          ))}
        </div>
      </fieldset>
      {packing.length > 0 ? <ul>{packing.map((p) => tick(p.what, p.done, (done) => ({ packed: p.id, done }), p.because))}</ul> : null}
      <h2 className="mt-4 text-key font-[650]">In the bag</h2>
      {bag.length === 0 ? (
        <p className="text-soft">Nothing is over.</p>
      ) : (
        <ul>
          {bag.map((b) =>
            tick(
              b.count > 1 ? `${b.count} × ${b.what}` : b.what,
              b.seen,
              (seen) => ({ bag: b.what, seen }),
              b.onlyFor ? `only for ${b.onlyFor}` : undefined,
            ),
          )}
        </ul>
      )}
      <h2 className="mt-4 text-key font-[650]">Photos</h2>
      <ul>
        {ready.photos.map((p) => (
          <PhotoPlace key={p.id} number={number} place={p} closed={closed} />
        ))}
      </ul>
      {ready.safetyTest ? <Safety number={number} leaving={leaving} act={act} closed={closed} /> : null}
      <p role="status" className="mt-1 text-second">
        {act.sentence}
      </p>
    </section>
  );
}

function PhotoPlace({ number, place, closed }: { number: string; place: ReadyView["photos"][number]; closed: boolean }) {
  const [said, setSaid] = useState("");
  return (
    <li className="flex min-h-10 flex-wrap items-center gap-3 border-t border-rule py-1">
      <span className="min-w-0 flex-1">{place.what}</span>
      <span role="status" className="text-second text-soft">
        {said || (place.taken === 0 ? "none yet" : place.taken === 1 ? "taken" : `${place.taken} taken`)}
      </span>
      {closed ? null : (
        <ChooseFile
          word={place.taken === 0 ? "Take it" : "Another"}
          of={place.what}
          accept={PHOTO_TYPES.join(",")}
          capture
          onFile={(file) =>
            addPhoto(file, { number, step: `handover:${place.id}` }).then(
              (refused) => setSaid(refused ?? "Kept here, and sent by itself."),
              () => setSaid("This device cannot keep it: its storage is full or switched off."),
            )
          }
        />
      )}
    </li>
  );
}

/** By whom, with what, and how it ended; local codes say whether and how. */
function Safety({ number, leaving, act, closed }: { number: string; leaving: ReadyView["leaving"]; act: Acting; closed: boolean }) {
  const [device, setDevice] = useState(leaving.safety?.with ?? "");
  return (
    <>
      <h2 className="mt-4 text-key font-[650]">Electrical safety test</h2>
      <p className="text-second text-soft">
        {leaving.safety
          ? `${leaving.safety.result === "passed" ? "Passed" : "Failed"}, with ${leaving.safety.with}, ${leaving.safety.by}.`
          : "As the local code asks, by somebody who may; with the machine closed."}
      </p>
      {closed ? null : (
        <div className="mt-1 flex flex-wrap items-center gap-2">
          <input
            className="field min-w-0 flex-1"
            aria-label="Tested with which instrument"
            placeholder="Instrument and its number"
            value={device}
            maxLength={200}
            onChange={(e) => setDevice(e.target.value)}
          />
          {(["passed", "failed"] as const).map((safety) => (
            <Button
              key={safety}
              disabled={act.pending || device.trim() === ""}
              onClick={() => act.run(() => prepareAction({ number, safety, with: device }))}
            >
              {safety === "passed" ? "It passed" : "It failed"}
            </Button>
          ))}
        </div>
      )}
    </>
  );
}
