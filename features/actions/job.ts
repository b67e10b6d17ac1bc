"use server";
import { changeBrief } from "../../server/job/change-brief";
import { changeDetails } from "../../server/job/details";
import { cancel, goOn, park } from "../../server/job/park";
import { setAside } from "../../server/job/set-aside";
import { acceptOffer, makeOffer } from "../../server/offer/make";
import { changeDefaults } from "../../server/shop/change-defaults";
import { perform } from "../../server/unit/door";

export const briefAction = async (input: unknown) => perform(changeBrief, input);
export const offerAction = async (input: unknown) => perform(makeOffer, input);
export const acceptOfferAction = async (input: unknown) => perform(acceptOffer, input);
export const defaultsAction = async (input: unknown) => perform(changeDefaults, input);
export const detailsAction = async (input: unknown) => perform(changeDetails, input);
export const parkAction = async (input: unknown) => perform(park, input);
export const goOnAction = async (input: unknown) => perform(goOn, input);
export const cancelAction = async (input: unknown) => perform(cancel, input);
export const setAsideAction = async (input: unknown) => perform(setAside, input);
