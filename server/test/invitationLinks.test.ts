import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { SignJWT } from 'jose';
import type { Db } from '../src/database/db.ts';
import { InvitationLinks } from '../src/languages/invitationLinks.ts';
import { embeddedDb } from './support/embeddedDb.ts';

const invitation = { job: 'a-job', link: 'first' };
const SOON = new Date(Date.now() + 60_000);
const NONE = { code: 'invitation.none', message: 'This link does not open anything.' };
let db: Db;
let links: InvitationLinks;
let secret: Uint8Array;
beforeAll(async () => {
  db = await embeddedDb();
  await db.query('CREATE TABLE signing_keys (name text PRIMARY KEY, secret text NOT NULL)');
  links = new InvitationLinks(db);
  await links.sign(invitation, SOON);
  const [row] = await db.query<{ secret: string }>('SELECT secret FROM signing_keys');
  secret = new Uint8Array(Buffer.from(row!.secret, 'base64'));
});
afterAll(() => db.close());

/** A token as RFC 7519 has them, right in all but what is said otherwise. */
const token = (more: { alg?: string; aud?: string; exp?: Date; nbf?: Date; sub?: string; key?: Uint8Array } = {}): Promise<string> => {
  const made = new SignJWT({})
    .setProtectedHeader({ alg: more.alg ?? 'HS256' })
    .setSubject(more.sub ?? invitation.job)
    .setJti(invitation.link)
    .setAudience(more.aud ?? 'translation-desk')
    .setExpirationTime(more.exp ?? SOON);
  return (more.nbf ? made.setNotBefore(more.nbf) : made).sign(more.key ?? secret);
};

describe('links of invitations', () => {
  test('open what they were signed for, in another process as well', async () => {
    const link = await links.sign(invitation, SOON);
    expect(await links.open(link)).toEqual(invitation);
    expect(await new InvitationLinks(db).open(link)).toEqual(invitation);
    expect(await links.open(await token())).toEqual(invitation);
  });

  test('say that their time is over once it is, to the second', async () => {
    for (const ms of [1000, 60_000, 365 * 86_400_000])
      await expect(links.open(await links.sign(invitation, new Date(Date.now() - ms)))).rejects.toMatchObject({
        code: 'invitation.late',
        message: 'The time of this invitation is over.',
      });
  });

  test.each([
    ['another key', { key: new Uint8Array(32) }],
    ['another algorithm with the same key', { alg: 'HS512' }],
    ['another audience', { aud: 'the-application' }],
    ['no job', { sub: '' }],
    ['a time that has not come', { nbf: SOON }],
  ])('open nothing with %s', async (_, more) => {
    await expect(links.open(await token(more))).rejects.toMatchObject(NONE);
  });

  test('open nothing with any letter of theirs changed to another that decodes to other bits', async () => {
    const link = await links.sign(invitation, SOON);
    const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_';
    // Half the alphabet away the first of its six bits is another; of a last letter only the last bits may be of no account (RFC 4648, 3.5).
    for (let at = 0; at < link.length; at++) {
      if (link[at] === '.') continue;
      const other = letters[(letters.indexOf(link[at]!) + 32) % 64]!;
      await expect(links.open(link.slice(0, at) + other + link.slice(at + 1))).rejects.toMatchObject({ code: /^invitation\./ });
    }
  });

  test('open nothing that is no token', async () => {
    for (const text of ['', 'please', 'a.b.c', '.'.repeat(9), '%00', 'é'.repeat(300), 'x'.repeat(100_000)])
      await expect(links.open(text)).rejects.toMatchObject(NONE);
  });
});
