import { ThinSlice } from "./0001-thin-slice";
import { Parts } from "./0002-parts";
import { MoneyAndSpares } from "./0003-money-and-spares";
import { Overrides } from "./0004-overrides";
import { WaysIn } from "./0005-ways";
import { Proof } from "./0006-proof";
import { ProofKey } from "./0007-proof-key";
import { Events } from "./0008-events";
import { HeadsAndNews } from "./0009-heads-and-news";
import { PlanRuns } from "./0010-plan-runs";
import { People } from "./0011-people";
import { LeadWays } from "./0012-ways";
import { WorkInOrder } from "./0013-order";
import { Photos } from "./0014-photos";
import { HeadNews } from "./0015-head-news";
import { Turns } from "./0016-turns";
import { NewsAfterCommit } from "./0017-news-after-commit";
import { Returns } from "./0018-returns";
import { Brief } from "./0019-brief";
import { ShopAndOffer } from "./0020-shop-and-offer";
import { SoakLogs } from "./0021-soak";
import { BesideParts } from "./0022-beside-parts";

/** Imported statically, in order: nothing is looked up on disk at run time. */
export const MIGRATIONS = [
  { name: "0001-thin-slice", class: ThinSlice },
  { name: "0002-parts", class: Parts },
  { name: "0003-money-and-spares", class: MoneyAndSpares },
  { name: "0004-overrides", class: Overrides },
  { name: "0005-ways", class: WaysIn },
  { name: "0006-proof", class: Proof },
  { name: "0007-proof-key", class: ProofKey },
  { name: "0008-events", class: Events },
  { name: "0009-heads-and-news", class: HeadsAndNews },
  { name: "0010-plan-runs", class: PlanRuns },
  { name: "0011-people", class: People },
  { name: "0012-ways", class: LeadWays },
  { name: "0013-order", class: WorkInOrder },
  { name: "0014-photos", class: Photos },
  { name: "0015-head-news", class: HeadNews },
  { name: "0016-turns", class: Turns },
  { name: "0017-news-after-commit", class: NewsAfterCommit },
  { name: "0018-returns", class: Returns },
  { name: "0019-brief", class: Brief },
  { name: "0020-shop-and-offer", class: ShopAndOffer },
  { name: "0021-soak", class: SoakLogs },
  { name: "0022-beside-parts", class: BesideParts },
];
