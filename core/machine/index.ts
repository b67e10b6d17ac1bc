export { type Element, partsOfElement } from "./paths";
export { type Expectation, GROUPS, type Group, type PowerOn, powerOn } from "./power-on";
export { asExpected } from "./readings";
