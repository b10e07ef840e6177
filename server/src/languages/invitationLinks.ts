import { randomBytes } from 'node:crypto';
import { jwtVerify, SignJWT } from 'jose';
import { FolioError } from '@elastic-folio/core/node';
import type { Db } from '../database/db.ts';

const AUDIENCE = 'translation-desk';
/** HMAC with SHA-256 (RFC 7518, 3.2): the key is at least as long as the hash. */
const ALGORITHM = 'HS256';
const KEY_BYTES = 32;

/** What a link in a mail stands for. */
export interface Invitation {
  job: string;
  /** Which mail it came with: only the newest one’s link is good. */
  link: string;
}

/** Signs what links of invitations carry, and tells whether one is to be trusted (JSON Web Token, RFC 7519). */
export class InvitationLinks {
  private key: Promise<Uint8Array> | null = null;
  constructor(private readonly db: Db) {}

  async sign({ job, link }: Invitation, until: Date): Promise<string> {
    return new SignJWT({})
      .setProtectedHeader({ alg: ALGORITHM })
      .setSubject(job)
      .setJti(link)
      .setAudience(AUDIENCE)
      .setIssuedAt()
      .setExpirationTime(until)
      .sign(await this.secret());
  }

  /** Throws where it was not signed here, or its time is over. */
  async open(token: string): Promise<Invitation> {
    try {
      const { payload } = await jwtVerify(token, await this.secret(), { audience: AUDIENCE, algorithms: [ALGORITHM] });
      if (!payload.sub || !payload.jti) throw new Error('incomplete');
      return { job: payload.sub, link: payload.jti };
    } catch (error) {
      const late = (error as { code?: string }).code === 'ERR_JWT_EXPIRED';
      throw new FolioError(
        late ? 'invitation.late' : 'invitation.none',
        late ? 'The time of this invitation is over.' : 'This link does not open anything.',
        'Ask whoever sent it for a new one.',
      );
    }
  }

  private secret(): Promise<Uint8Array> {
    this.key ??= (async () => {
      // Another process may have made it first: what is there holds.
      await this.db.query('INSERT INTO signing_keys (name, secret) VALUES ($1, $2) ON CONFLICT DO NOTHING', [
        AUDIENCE,
        randomBytes(KEY_BYTES).toString('base64'),
      ]);
      const [row] = await this.db.query<{ secret: string }>('SELECT secret FROM signing_keys WHERE name = $1', [AUDIENCE]);
      return new Uint8Array(Buffer.from(row!.secret, 'base64'));
    })();
    return this.key;
  }
}
