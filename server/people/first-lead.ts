import { timingSafeEqual } from "node:crypto";
import { z } from "zod";
import { Credential, type EntityManager, Person, type PersonRow } from "../../db";
import { done, no, type Result } from "../kernel/result";
import { line } from "../kernel/text";
import { entrance } from "../unit/entrance";
import { countFrom } from "./attempts";
import { hashSecret, passwordFault } from "./password";
import { Secret, seatAt } from "./sign-in";
import { wantsFirstLead } from "./wants-first-lead";

const same = (a: string, b: string) => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

/** The first lead's account: whoever keeps the server has the code that it printed when it started. */
export const firstLead = entrance({
  name: "people.first-lead",
  input: z.object({ code: line(40), name: line(120).refine((s) => s.length > 1, "name yourself"), password: Secret }),
  run: async (em, { code, name, password }, door): Promise<Result> => {
    const wanted = process.env.IMBRA_SETUP_CODE ?? "";
    if (!(await countFrom(em, "code", "everywhere"))) return no("Too many wrong codes. Wait a quarter of an hour.");
    if (wanted === "" || !same(wanted, code)) return no("That is not the code that the server printed when it started. Nothing was changed.");
    const fault = passwordFault(password, name);
    if (fault) return no(`${fault} Nothing was changed.`);
    const hash = await hashSecret(password);
    const made = await em.transactional(async (tx) => {
      // Two at once: the second finds that there is one.
      await tx.execute(`select pg_advisory_xact_lock(20261127)`);
      if (!(await wantsFirstLead(tx as EntityManager))) return undefined;
      const known = (await tx.findOne(Person, { name })) as PersonRow | null;
      const person = known ?? tx.create(Person, { name, role: "lead", active: true });
      Object.assign(person, { role: "lead", active: true });
      await tx.flush();
      const kept = await tx.findOne(Credential, { person: person.id });
      if (kept) kept.passwordHash = hash;
      else tx.create(Credential, { person, passwordHash: hash, pinHash: null });
      await tx.flush();
      return person.id;
    });
    if (!made) return no("The shop has a lead already. Sign in, or ask them. Nothing was changed.");
    await seatAt(em, door, made);
    return done();
  },
});
