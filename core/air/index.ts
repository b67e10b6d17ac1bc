export {
  type Air,
  airOf,
  type FanAir,
  FILTERED,
  flowForHeatM3h,
  inAndOut,
  LOW_NOISE,
  MOUNTED,
  soundAtDb,
  soundSumDb,
  THROUGH_RADIATOR,
  usualWay,
} from "./flow";
