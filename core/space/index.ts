export { bodyOf, CLEAR_MM, HUNG_MM, hangsOn, hung, isHung, portRow, type Spot, spotOfLead, spotOfPart, spotOfPort } from "./spots";
export { type Body, type BodyKind, bodies, type Sheet } from "./stand";
