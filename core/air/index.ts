export { type Air, airOf, type FanAir, FILTERED, flowForHeatM3h, MOUNTED, soundAtDb, soundSumDb, THROUGH_RADIATOR, usualWay } from "./flow";
