export { behindStanding, cardsOver } from "./covers";
export { BOARD_FACE_MM, behindMm, roomMm } from "./depth";
export { type Meeting, meetings } from "./meets";
export { bodyOf, CLEAR_MM, HANGING, HUNG_MM, hangsOn, hung, isHung, portRow, type Spot, spotOfLead, spotOfPart, spotOfPort } from "./spots";
export { type Body, type BodyKind, bodies, type Sheet, STANDING } from "./stand";
