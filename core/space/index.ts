export { type Meeting, meetings } from "./meets";
export { bodyOf, CLEAR_MM, HANGING, HUNG_MM, hangsOn, hung, isHung, portRow, type Spot, spotOfLead, spotOfPart, spotOfPort } from "./spots";
export { BOARD_FACE_MM, type Body, type BodyKind, behindMm, bodies, roomMm, type Sheet, STANDING } from "./stand";
