import { randomUUID } from 'node:crypto';
import { Letter } from '@elastic-folio/core/api';
import { fromJson } from '../database/json.ts';
import type { Db } from '../database/db.ts';

const OWNER = 'desk';
/** Mails of a list. */
const MOST = 200;

/** The simulated outbox: mails are made as they would leave, and stay in the database, where they can be read. */
export class Outbox {
  constructor(private readonly db: Db) {}

  async send(
    job: string,
    mail: { to: { name: string; address: string }; subject: string; text: string; link: string | null },
  ): Promise<void> {
    const { createTransport } = await import('nodemailer');
    // Sends nothing: what it would send is handed back, whole.
    const post = createTransport({ streamTransport: true, buffer: true, newline: 'unix' });
    const { message, envelope } = await post.sendMail({
      from: { name: 'Studio desk', address: 'desk@marrowby.example' },
      to: mail.to,
      subject: mail.subject,
      text: mail.text,
    });
    const id = randomUUID();
    const letter: Letter = {
      id,
      to: envelope.to.join(', '),
      subject: mail.subject,
      text: mail.text,
      link: mail.link,
      at: new Date().toISOString(),
    };
    await this.db.query('INSERT INTO outbox (id, owner, job, letter, raw) VALUES ($1, $2, $3, $4, $5)', [
      id,
      OWNER,
      job,
      JSON.stringify(letter),
      message.toString(),
    ]);
  }

  /** The newest first. */
  async list(): Promise<Letter[]> {
    const rows = await this.db.query<{ letter: unknown }>('SELECT letter FROM outbox WHERE owner = $1 ORDER BY at DESC LIMIT $2', [
      OWNER,
      MOST,
    ]);
    return rows.map(({ letter }) => Letter.parse(fromJson(letter)));
  }

  /** A mail as it would leave (RFC 5322); null where there is none. */
  async raw(id: string): Promise<string | null> {
    const [row] = await this.db.query<{ raw: string }>('SELECT raw FROM outbox WHERE owner = $1 AND id = $2', [OWNER, id]);
    return row?.raw ?? null;
  }
}
