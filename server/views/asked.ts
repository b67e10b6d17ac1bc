import { find, scanned } from "../job/find";
import { readRows } from "../job/read-list";
import { readMailHere } from "../job/read-mail";
import { simulatedView } from "../machine/simulated";
import { machineStreams } from "../machine/stream";
import { canNow, compare, tryPull, undoStep } from "../order/ask";
import { alternativesFor, tryWiring } from "../parts/what-if";
import { mattersHere } from "../plan/matters";
import { placeCostsHere } from "../plan/places";
import { planChanges } from "../plan/plan-changes";
import { search } from "../shelf/search";
import { judgeShelfFile } from "../shelf/shelf-file";
import type { Action } from "../unit/action";

/**
 * What screens ask while somebody waits, and changes nothing. The framework sends a browser's actions one after the other; these go beside
 * them, so that no press waits behind a slow one.
 */
export const ASKED = {
  "job.find": find,
  "job.scanned": scanned,
  "job.read-list": readRows,
  "job.read-mail": readMailHere,
  "machine.streams": machineStreams,
  "machine.simulated": simulatedView,
  "order.undo": undoStep,
  "order.try-pull": tryPull,
  "order.compare": compare,
  "order.now": canNow,
  "parts.matters": mattersHere,
  "parts.alternatives": alternativesFor,
  "parts.try-wiring": tryWiring,
  "wiring.place-costs": placeCostsHere,
  "wiring.plan-changes": planChanges,
  "shelf.search": search,
  "shelf.judge-file": judgeShelfFile,
};
type Asked = typeof ASKED;
export type Question = keyof Asked;
/** What a question answers when it is not refused. */
export type Answer<Q extends Question> = Asked[Q] extends Action<infer _, infer T> ? T : never;

export const isQuestion = (name: string): name is Question => Object.hasOwn(ASKED, name);
