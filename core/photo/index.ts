export { cssMatrix, type Ground, groundOf, mmOf, pxOf, type Tap } from "./ground";
