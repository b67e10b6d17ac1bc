export { type Drawn, drawSheet, type Ink, type Item, type Look, type PortState } from "./draw";
export { type FrontBox, type FrontView, frontOf } from "./front";
export { type Box, type LabelRoom, type LabelWish, labelLines, type PlacedLabel, placeLabels } from "./labels";
export { LOOM_DASH, laid, PAPER_INK, PAPER_TONE, type PaperDrawing, type PlainNames, paperDrawing, svgOf } from "./paper";
export { type Scene, type SceneBox, type ScenePort, sceneOf, seenAt, seenRect } from "./scene";
export { type Bundle, type Strand, strandsOf } from "./strands";
