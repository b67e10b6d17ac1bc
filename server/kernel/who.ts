import "server-only";
import { getIronSession } from "iron-session";
import { cookies } from "next/headers";
import { entityManager, Technician, type TechnicianRow } from "../../db";

interface Session {
  technician?: string;
}

async function session() {
  const password = process.env.IMBRA_SECRET;
  if (!password) throw new Error("IMBRA_SECRET is not set. Start Imbra with npm start, which makes one.");
  return getIronSession<Session>(await cookies(), {
    password,
    cookieName: "imbra",
    cookieOptions: { secure: process.env.IMBRA_TLS === "1", sameSite: "strict", httpOnly: true, path: "/" },
  });
}

/** The technician who sits here, as chosen and sealed in the cookie. */
export async function whoIsIt(): Promise<TechnicianRow | undefined> {
  const { technician } = await session();
  if (!technician) return undefined;
  const em = await entityManager();
  return (await em.findOne(Technician, { id: technician })) ?? undefined;
}

export async function sitDown(id: string): Promise<boolean> {
  const em = await entityManager();
  if (!(await em.findOne(Technician, { id }))) return false;
  const s = await session();
  s.technician = id;
  await s.save();
  return true;
}

export async function technicians(): Promise<{ id: string; name: string; role: string }[]> {
  const em = await entityManager();
  return (await em.find(Technician, {}, { orderBy: { name: "asc" }, limit: 100 })).map((t) => ({ id: t.id, name: t.name, role: t.role }));
}
