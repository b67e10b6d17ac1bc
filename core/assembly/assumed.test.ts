import { describe, expect, it } from "vitest";
import { shelf } from "../../tests/fixtures/demo";
import { withFigure } from "../catalogue";
import { checkParts } from "../checks";
import { clearances, said } from "../fit";
import { fromMail, readMail, shelfIndex } from "../intake";
import { sceneOf } from "../scene";
import { assumedIn, buildGraph, sayingAssumed, typeLookup } from ".";

const made = (text: string) => fromMail(readMail(text, shelfIndex(shelf), "2026-12-01"), (id) => shelf.find((t) => t.id === id)).build;
const graphOf = (build: ReturnType<typeof made>) => buildGraph(build, typeLookup(build, shelf));

describe("what is only assumed is said", () => {
  const build = made(
    "- Harbour mid tower\n- Heron T40\n- Quillane 12-core\n- Graphics card Borealis X5\n- CPU cooler Nordlicht N12\n- Mossgate 650 M",
  );
  it("in clearances and findings that rest on it, and in no other", () => {
    const graph = graphOf(build);
    const card = clearances(graph).find((c) => c.id.startsWith("card-length"));
    expect(card && said(card)).toMatch(/ to spare\. Assumed: length of Graphics card Borealis X5\.$/);
    const supply = clearances(graph).find((c) => c.id.startsWith("supply-length"));
    expect(supply && said(supply)).not.toMatch(/Assumed/);
    const heat = checkParts(graph).find((f) => f.rule === "cooler-heat");
    expect(heat?.message).toMatch(/Assumed: heat it carries of .*Nordlicht N12\.$/);
  });
  it("until somebody confirms it", () => {
    const type = build.partTypes.find((t) => t.kind === "card");
    if (!type) throw new Error("no card");
    const sure = { ...build, partTypes: build.partTypes.map((t) => (t === type ? withFigure(t, "lengthMm", 280, "measured") : t)) };
    const card = clearances(graphOf(sure)).find((c) => c.id.startsWith("card-length"));
    expect(card && said(card)).not.toMatch(/Assumed/);
  });
  it("and its outline is drawn as such; that of a known part is not", () => {
    const scene = sceneOf(graphOf(build));
    const of = (kind: string) => scene.boxes.find((b) => b.kind === kind)?.provisional;
    expect([of("card"), of("cooler"), of("board")]).toEqual([true, true, undefined]);
    expect(scene.assumed.join()).toMatch(/the outlines? of /);
  });
  it("many assumptions are counted, not listed", () => {
    expect(sayingAssumed("It fits.", ["a", "b", "c", "d", "e"])).toBe("It fits. Assumed: a, b and 3 more.");
    expect(assumedIn(graphOf(build), { card: ["lengthMm", "watts"] })).toHaveLength(2);
  });
});
