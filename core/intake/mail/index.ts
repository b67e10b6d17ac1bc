export { type Due, dueIn } from "./dates";
export { figuresFor, figuresIn, moneyIn, numberIn, type Said } from "./figures";
export { amountOf } from "./line";
export { type Mail, type MailLine, MOST_CHARS, type Monitor, type Promised, readMail, understood } from "./mail";
export { type Alternative, matchOf } from "./match";
export { kindIn } from "./vocabulary";
