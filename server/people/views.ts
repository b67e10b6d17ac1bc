import { z } from "zod";
import { type EntityManager, Session, Shop, ShopEntry } from "../../db";
import { isRole, ROLES } from "../kernel/actor";
import { no, type Result, yes } from "../kernel/result";
import { IDLE_DAYS, SESSION_DAYS } from "../kernel/seat";
import { query } from "../unit/action";
import { shopEventWords } from "./shop-log";

export interface PersonView {
  id: string;
  name: string;
  role: string;
  active: boolean;
  hasPassword: boolean;
  hasPin: boolean;
}
export interface SessionView {
  id: string;
  person: string;
  name: string;
  label: string;
  startedAt: string;
  seenAt: string;
  byPin: boolean;
  /** Who signed in with a password, where somebody else works there now. */
  openedBy: string | null;
  /** The one that asks. */
  here: boolean;
}
export interface PeopleView {
  people: PersonView[];
  sessions: SessionView[];
  log: { id: number; at: string; by: string; text: string }[];
  benchLockMinutes: number;
  /** Wrong tries of the last day, newest first. */
  wrongTries: { id: number; at: string; text: string }[];
}
export interface OwnView {
  person: PersonView;
  sessions: SessionView[];
}

const MOST_PEOPLE = 300;
const MOST_SESSIONS = 200;
const MOST_LINES = 100;
const MOST_TRIES = 10;
const DAY_MS = 86_400_000;

async function peopleOf(em: EntityManager, where: { id?: string } = {}): Promise<PersonView[]> {
  const rows = await em.execute<{ id: string; name: string; role: string; active: boolean; password: boolean; pin: boolean }[]>(
    `select p."id", p."name", p."role", p."active", c."password_hash" is not null as password, c."pin_hash" is not null as pin
     from "person" p left join "credential" c on c."person_id" = p."id" ${where.id ? `where p."id" = ?` : ""} order by p."active" desc, p."name" limit ${MOST_PEOPLE}`,
    where.id ? [where.id] : [],
  );
  return rows.map((r) => ({ id: r.id, name: r.name, role: r.role, active: r.active, hasPassword: r.password, hasPin: r.pin }));
}

/** Sign-ins that still hold, newest first. */
async function sessionsOf(em: EntityManager, here: string | undefined, person?: string): Promise<SessionView[]> {
  const rows = await em.find(
    Session,
    {
      endedAt: null,
      startedAt: { $gt: new Date(Date.now() - SESSION_DAYS * DAY_MS) },
      seenAt: { $gt: new Date(Date.now() - IDLE_DAYS * DAY_MS) },
      ...(person ? { $or: [{ person }, { openedBy: person }] } : {}),
    },
    { orderBy: { seenAt: "desc" }, limit: MOST_SESSIONS, populate: ["person", "openedBy"] },
  );
  return rows.map((s) => ({
    id: s.id,
    person: s.person.id,
    name: s.person.name,
    label: s.label,
    startedAt: s.startedAt.toISOString(),
    seenAt: s.seenAt.toISOString(),
    byPin: s.byPin,
    openedBy: s.openedBy.id === s.person.id ? null : s.openedBy.name,
    here: s.id === here,
  }));
}

export const people = query({
  name: "people.list",
  permission: "keep people",
  input: z.strictObject({}),
  run: async (em, _, actor): Promise<Result<PeopleView>> => {
    const log = await em.find(ShopEntry, {}, { orderBy: { id: "desc" }, limit: MOST_LINES, populate: ["by"] });
    const wrong = await em.find(
      ShopEntry,
      { kind: "wrong-tries", at: { $gt: new Date(Date.now() - DAY_MS) } },
      { orderBy: { id: "desc" }, limit: MOST_TRIES },
    );
    return yes({
      wrongTries: wrong.map((e) => ({ id: e.id, at: e.at.toISOString(), text: shopEventWords(e.kind, e.data) })),
      people: await peopleOf(em),
      sessions: await sessionsOf(em, actor.session),
      log: log.map((e) => ({ id: e.id, at: e.at.toISOString(), by: e.by?.name ?? "nobody signed in", text: shopEventWords(e.kind, e.data) })),
      benchLockMinutes: (await em.findOne(Shop, { id: 1 }))?.benchLockMinutes ?? 15,
    });
  },
});

export const own = query({
  name: "people.own",
  input: z.strictObject({}),
  run: async (em, _, actor): Promise<Result<OwnView>> => {
    const [person] = await peopleOf(em, { id: actor.id });
    return person ? yes({ person, sessions: await sessionsOf(em, actor.session, actor.id) }) : no("There is nobody of that name any more.");
  },
});

/** Who may work at a bench, for the keys of a change of person. */
export const benchPeople = query({
  name: "people.at-bench",
  input: z.strictObject({}),
  run: async (em): Promise<Result<{ id: string; name: string; hasPin: boolean }[]>> => {
    const all = await peopleOf(em);
    return yes(
      all
        .filter((p) => p.active && isRole(p.role) && (ROLES[p.role] as readonly string[]).includes("record"))
        .slice(0, 60)
        .map(({ id, name, hasPin }) => ({ id, name, hasPin })),
    );
  },
});
