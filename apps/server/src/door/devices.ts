import { fault, type SignedIn, ZaffetError } from '@zaffet/contract';
import { and, desc, eq, gt, lt, ne } from 'drizzle-orm';
import { createHash, randomBytes } from 'node:crypto';
import { type Database } from '../db/client';
import { invitations, marks, sessions } from '../db/schema';
import { fits, packed, type Secret, secretOf, unpacked } from './phrase';

const MINUTE = 60_000;
const DAY = 86_400_000;
/** A device that is not seen so long signs in anew. */
const LASTS = 30 * DAY;
export const INVITATION_LASTS = 10 * MINUTE;
const TOKEN_BYTES = 32;
const MOST_LISTED = 200;
const SECRET = 'door';

const fresh = (): string => randomBytes(TOKEN_BYTES).toString('base64url');
const digestOf = (token: string): string => createHash('sha256').update(token).digest('base64');
const inFuture = (ms: number): Date => new Date(Date.now() + ms);

/** A device that is signed in. */
export interface Device {
  readonly id: string;
  readonly name: string;
}

/**
 * What the pass phrase is checked against. Another phrase than the last time shuts all devices out: whoever changes it
 * wants that.
 */
export async function readySecret(db: Database, phrase: string): Promise<Secret> {
  const [known] = await db.select().from(marks).where(eq(marks.key, SECRET));
  if (known !== undefined) {
    const secret = unpacked(known.value);
    if (await fits(phrase, secret)) return secret;
  }
  const secret = await secretOf(phrase);
  const value = packed(secret);
  await db.transaction(async (all) => {
    await all
      .insert(marks)
      .values({ key: SECRET, value })
      .onConflictDoUpdate({ target: marks.key, set: { value } });
    await all.delete(sessions);
    await all.delete(invitations);
  });
  return secret;
}

/** Signs a device in. @returns what it shows from now on, which is kept nowhere here */
export async function signIn(
  db: Database,
  name: string,
): Promise<{ device: Device; token: string; lasts: number }> {
  await db.delete(sessions).where(lt(sessions.until, new Date()));
  const token = fresh();
  const [row] = await db
    .insert(sessions)
    .values({ digest: digestOf(token), name, until: inFuture(LASTS) })
    .returning({ id: sessions.id });
  return { device: { id: row!.id, name }, token, lasts: LASTS };
}

/** The device that shows a token; null where none is signed in by it. It stays signed in as long as it is seen. */
export async function deviceOf(db: Database, token: string): Promise<Device | null> {
  const [row] = await db
    .select()
    .from(sessions)
    .where(and(eq(sessions.digest, digestOf(token)), gt(sessions.until, new Date())));
  if (row === undefined) return null;
  if (Date.now() - row.seenAt.getTime() > MINUTE)
    // On a full disk it is let in all the same.
    await db
      .update(sessions)
      .set({ seenAt: new Date(), until: inFuture(LASTS) })
      .where(eq(sessions.id, row.id))
      .catch(() => undefined);
  return { id: row.id, name: row.name };
}

/** Devices that are signed in, those seen last first. */
export async function listDevices(db: Database, here: string): Promise<SignedIn[]> {
  const rows = await db
    .select()
    .from(sessions)
    .where(gt(sessions.until, new Date()))
    .orderBy(desc(sessions.seenAt), desc(sessions.id))
    .limit(MOST_LISTED);
  return rows.map(({ id, name, since, seenAt }) => ({
    id,
    name,
    since: since.toISOString(),
    seenAt: seenAt.toISOString(),
    here: id === here,
  }));
}

/** Shuts a device out. @throws ZaffetError `session.not-found` */
export async function shutOut(db: Database, id: string): Promise<void> {
  const gone = await db.delete(sessions).where(eq(sessions.id, id)).returning({ id: sessions.id });
  if (gone.length === 0) throw new ZaffetError(fault('session.not-found'));
}

/** Shuts all devices out but one. @returns those that were */
export async function shutOthersOut(db: Database, here: string): Promise<string[]> {
  const gone = await db.delete(sessions).where(ne(sessions.id, here)).returning({ id: sessions.id });
  return gone.map(({ id }) => id);
}

/** A key that lets one device in, within ten minutes. */
export async function invite(db: Database): Promise<{ key: string; until: Date }> {
  await db.delete(invitations).where(lt(invitations.until, new Date()));
  const [key, until] = [fresh(), inFuture(INVITATION_LASTS)];
  await db.insert(invitations).values({ digest: digestOf(key), until });
  return { key, until };
}

/** Takes an invitation's key: the same one never twice. @throws ZaffetError `session.old-key` */
export async function takeInvitation(db: Database, key: string): Promise<void> {
  const taken = await db
    .delete(invitations)
    .where(and(eq(invitations.digest, digestOf(key)), gt(invitations.until, new Date())))
    .returning({ digest: invitations.digest });
  if (taken.length === 0) throw new ZaffetError(fault('session.old-key'));
}
