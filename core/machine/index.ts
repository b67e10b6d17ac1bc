export { type Expectation, GROUPS, type Group, type PowerOn } from "./expectation";
export { type Element, partsOfElement } from "./paths";
export { powerOn } from "./power-on";
export { asExpected } from "./readings";
