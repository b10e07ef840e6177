import { catchUp, OpenFolio, wholeOf } from '@elastic-folio/core';
import type { Edit, Folio, HeardRow, Patch, RefusedEdit, WaitingEdit } from '@elastic-folio/core';
import type { EditAnswer } from '@elastic-folio/core/api';
import { samePatches } from './samePatches.ts';

/** A step that can be undone or redone: rows of the log, or edits that were taken back before they were sent. */
export type Step = { burst: string; rows: number[] } | { burst: string; edits: Edit[] };

/** A change that could not be kept, and what of it can be had back. */
export interface SetAside {
  id: string;
  edit: Edit;
  /** What was typed; empty where the change was none of text. */
  text: string;
  why: string;
}

/** What a window knows of its document beside the document itself. */
export interface SessionState {
  folio: Folio;
  /** Whether every change has reached the server. */
  kept: boolean;
  undo: Step[];
  redo: Step[];
  setAside: SetAside[];
  notice: string | null;
}

/** What a session needs from outside. */
export interface SessionPorts {
  actor: string;
  send(request: { base: number; actor: string; edits: WaitingEdit[] }): Promise<EditAnswer>;
  undo(request: { base: number; actor: string; rows: number[]; uid: string }): Promise<EditAnswer>;
  since(seq: number): Promise<{ rows: HeardRow[] }>;
  /** The document as the server has it now, all of it. */
  reload(): Promise<{ folio: Folio; seq: number }>;
  /** Keeps what has not arrived where it survives this window. */
  keep(base: number, edits: readonly WaitingEdit[]): void;
  /** The state is another. `patches` lead from the document before to this one; null: it is another as a whole. */
  changed(state: Partial<SessionState>, change: { patches: Patch[] | null; outside: boolean } | null): void;
  pause(ms: number): Promise<void>;
}

/** An edit that has not been confirmed, carried out here. */
interface Pending extends WaitingEdit {
  /** How it leads to the document after it, and back. */
  patches: Patch[];
  inverse: Patch[];
  after: OpenFolio;
  /** It has been on its way: the server may have it. */
  tried: boolean;
}

/** The server’s answer to what it cannot do. `status` 0: there was no answer. */
interface Problem extends Error {
  status: number;
  advice?: string;
}

/** Edits that are sent in one request. */
export const AT_ONCE = 100;
const MET = 'Somebody changed the same thing at the same time.';
const DELETED = 'Somebody deleted the paragraph in which it was typed.';
const [FIRST_PAUSE_MS, LONGEST_PAUSE_MS] = [1000, 10_000];

/**
 * The edits of one window on one document: those the server has confirmed, those that are on their way, and those of others, which
 * go underneath. `folio` is always what the server has with this window's own edits on top. Knows nothing of screens.
 */
export class EditSession {
  private base: OpenFolio;
  private pending: Pending[] = [];
  /** What of the state has changed and is not told yet. */
  private untold: Partial<SessionState> | null = null;
  private undo: Step[];
  private redo: Step[];
  private setAside: SetAside[] = [];
  private sending: Promise<void> | null = null;
  private wantsMissed = false;
  private closed = false;
  private offline = false;
  private pauseMs = FIRST_PAUSE_MS;
  /** Some parts of the document have not come in yet. */
  private opening = true;
  private missedWhileOpening = false;
  /** After a request was refused as a whole, one burst at a time is sent, so that one change cannot hold up the others. */
  private oneByOne = false;

  constructor(
    /** The document as the server has it. */
    base: Folio,
    private seq: number,
    history: { undo: number[][]; redo: number[][] },
    private readonly ports: SessionPorts,
  ) {
    this.base = OpenFolio.of(base);
    const steps = (list: number[][]): Step[] => list.map((rows) => ({ burst: '', rows }));
    this.undo = steps(history.undo);
    this.redo = steps(history.redo);
  }

  /** The document with all that was done here. */
  get folio(): Folio {
    return this.now.folio;
  }

  private get now(): OpenFolio {
    return this.pending[this.pending.length - 1]?.after ?? this.base;
  }

  /** Parts that come in while the document is being opened; they belong to the row it was opened at. */
  addParts(parts: Pick<Folio, 'spreads' | 'stories'>): void {
    const add = ({ folio }: OpenFolio): OpenFolio =>
      OpenFolio.of({
        ...folio,
        spreads: { ...folio.spreads, ...parts.spreads },
        stories: { ...folio.stories, ...parts.stories },
      });
    this.base = add(this.base);
    for (const p of this.pending) p.after = add(p.after);
    if (!this.closed) this.ports.changed({ folio: this.folio }, null);
  }

  /** All parts are there. */
  complete(): void {
    this.opening = false;
    if (this.missedWhileOpening) void this.resync();
  }

  /**
   * Carries edits out here and sends them. False where one of them is impossible: then nothing is changed, and `notice` says why.
   * While somebody types, the document is not put together for every letter: `folio` gives it, and `changed` goes without it.
   */
  change(edits: readonly Edit[], burst: string, typing = false): boolean {
    const made: Pending[] = [];
    let { now } = this;
    try {
      for (const edit of edits) {
        const { patches, inverse, open: after } = now.apply(edit);
        now = after;
        if (patches.length) made.push({ uid: crypto.randomUUID(), burst, edit, patches, inverse, after, tried: false });
      }
    } catch (error) {
      this.tell({ notice: (error as Error).message }, null);
      return false;
    }
    if (!made.length) return true;
    this.pending.push(...made);
    this.tell({ ...(!typing && { folio: now.folio }), kept: false }, { patches: made.flatMap((m) => m.patches), outside: !typing });
    this.keep();
    void this.flush();
    return true;
  }

  /** Takes in rows that were heard of; those that do not follow on what is known are asked for. */
  hear(seq: number, rows: readonly HeardRow[] | undefined): void {
    if (seq <= this.seq) return;
    const next = rows?.find((r) => r.seq > this.seq);
    if (rows && next?.seq === this.seq + 1) this.advance(rows);
    else this.lookForMissed();
  }

  /** Asks what others have changed since this window last heard. */
  lookForMissed(): void {
    this.wantsMissed = true;
    void this.flush();
  }

  /** Sends everything that waits; resolves when the server has it, or the session is closed. */
  flush(): Promise<void> {
    return (this.sending ??= this.sendAll().finally(() => (this.sending = null)));
  }

  /** Leaves the document: what has not arrived is given back, to be sent without waiting for an answer. */
  close(): { base: number; edits: WaitingEdit[] } {
    this.closed = true;
    return { base: this.seq, edits: this.pending.map(bare) };
  }

  dismissAside(id: string): void {
    this.setAside = this.setAside.filter((s) => s.id !== id);
    this.tell({ setAside: this.setAside }, null);
  }

  /** Puts changes aside that an earlier window could not bring in. */
  putAside(refused: readonly RefusedEdit[], why: string): void {
    for (const { uid, edit, text } of refused) this.aside(uid, edit, text, why);
    if (refused.length) this.tell({ setAside: this.setAside }, null);
  }

  async takeBack(kind: 'undo' | 'redo'): Promise<void> {
    if (kind === 'redo') {
      const again = this.redo[this.redo.length - 1];
      if (again && 'edits' in again) {
        const rest = this.redo.slice(0, -1);
        if (this.change(again.edits, again.burst)) this.tellHistory(this.undo, rest);
        return;
      }
    } else if (this.offline && this.takeBackUnsent()) return;
    await this.flush();
    if (this.closed) return;
    const stack = kind === 'undo' ? this.undo : this.redo;
    const step = stack[stack.length - 1];
    if (!step || !('rows' in step)) return;
    const uid = crypto.randomUUID();
    try {
      const answer = await this.reaching(() => this.ports.undo({ base: this.seq, actor: this.ports.actor, rows: step.rows, uid }));
      if (!answer) return;
      const rows = [...answer.missed, ...answer.rows];
      const taken: Step = { burst: '', rows: rows.filter((r) => r.uid === uid).map((r) => r.seq) };
      this.advance(rows);
      const [undo, redo] = kind === 'undo' ? [this.undo, [...this.redo, taken]] : [[...this.undo, taken], this.redo];
      this.tellHistory(
        undo.filter((s) => s !== step),
        redo.filter((s) => s !== step),
      );
    } catch (error) {
      this.tell({ notice: inWords(error as Problem) }, null);
    }
  }

  /** Takes back the newest burst that was never on its way; false where there is none. */
  private takeBackUnsent(): boolean {
    const last = this.pending[this.pending.length - 1];
    if (!last || last.tried) return false;
    let from = this.pending.length;
    while (from > 0 && !this.pending[from - 1]!.tried && this.pending[from - 1]!.burst === last.burst) from--;
    const taken = this.pending.splice(from);
    const patches = [...taken].reverse().flatMap((p) => p.inverse);
    this.tell({ folio: this.folio }, { patches, outside: true });
    this.tellHistory(this.undo, [...this.redo, { burst: last.burst, edits: taken.map((p) => p.edit) }]);
    this.keep();
    return true;
  }

  private async sendAll(): Promise<void> {
    while (!this.closed && (this.pending.length || this.wantsMissed)) {
      const sent = this.nextBatch();
      try {
        if (!sent.length) {
          this.wantsMissed = false;
          const { rows } = await this.ports.since(this.seq);
          this.heardAgain();
          this.advance(rows);
        } else {
          const answer = await this.ports.send({ base: this.seq, actor: this.ports.actor, edits: sent });
          this.heardAgain();
          this.oneByOne = false;
          this.advance([...answer.missed, ...answer.rows]);
          this.settle(sent, answer.refused, MET);
        }
      } catch (error) {
        const problem = error as Problem;
        if (isAway(problem)) await this.waitForServer(problem, () => (this.wantsMissed = true));
        else {
          this.heardAgain();
          if (!this.oneByOne && sent.some((e) => e.burst !== sent[0]!.burst)) this.oneByOne = true;
          else
            this.settle(
              sent,
              sent.map(({ uid, edit }) => ({ uid, edit, text: typedIn(edit), by: [] })),
              inWords(problem),
            );
        }
      }
    }
    this.tell({ kept: !this.pending.length }, null);
  }

  /** What is sent next; none where only rows of others are to be fetched. */
  private nextBatch(): WaitingEdit[] {
    const first = this.pending[0]?.burst;
    const end = this.oneByOne ? this.pending.findIndex((p) => p.burst !== first) : -1;
    const batch = this.pending.slice(0, Math.min(AT_ONCE, end < 0 ? Infinity : end));
    for (const p of batch) p.tried = true;
    return batch.map(bare);
  }

  private heardAgain(): void {
    this.offline = false;
    this.pauseMs = FIRST_PAUSE_MS;
  }

  /** Says once that there is no answer, and waits, longer each time. */
  private async waitForServer(problem: Problem, before: () => void): Promise<void> {
    before();
    if (!this.offline) this.tell({ notice: inWords(problem) }, null);
    this.offline = true;
    await this.ports.pause(this.pauseMs);
    this.pauseMs = Math.min(this.pauseMs * 1.5, LONGEST_PAUSE_MS);
  }

  /** Asks the server until it answers; null where the session was closed meanwhile. Throws what it refuses. */
  private async reaching<T>(ask: () => Promise<T>): Promise<T | null> {
    while (!this.closed)
      try {
        const answer = await ask();
        this.heardAgain();
        return this.closed ? null : answer;
      } catch (error) {
        if (!isAway(error as Problem)) throw error;
        await this.waitForServer(error as Problem, () => undefined);
      }
    return null;
  }

  /** What was sent and answered does not wait any more, whether rows came of it or not. */
  private settle(sent: readonly WaitingEdit[], refused: readonly RefusedEdit[], why: string): void {
    const names = new Set(sent.map((e) => wholeOf(e.uid)));
    const open = new Set(this.pending.filter((p) => names.has(wholeOf(p.uid))));
    for (const r of refused) if ([...open].some((p) => wholeOf(p.uid) === r.uid)) this.aside(r.uid, r.edit, r.text, why);
    if (open.size)
      this.rebuild(
        this.base.folio,
        this.pending.filter((p) => !open.has(p)),
        [],
        why,
      );
    else this.keep();
    if (refused.length) this.tell({ setAside: this.setAside }, null);
  }

  /** Goes along the log; rows that are known already are passed over. */
  private advance(heard: readonly HeardRow[]): void {
    const rows = heard.filter((r) => r.seq > this.seq);
    if (!rows.length || this.closed) return;
    if (rows.some((r, i) => r.seq !== this.seq + 1 + i)) return void this.resync();
    const own = rows.every(
      (r, i) => r.uid !== undefined && r.uid === this.pending[i]?.uid && samePatches(r.patches, this.pending[i]!.patches),
    );
    this.seq = Math.max(this.seq, rows[rows.length - 1]!.seq);
    const waiting = new Set(this.pending.map((p) => p.uid));
    if (own) {
      this.base = this.pending[rows.length - 1]!.after;
      this.pending = this.pending.slice(rows.length);
    } else if (this.opening) {
      // Rows of others reach into parts that have not come in: all is fetched anew once they have.
      this.missedWhileOpening = true;
      const arrived = this.pending.findLastIndex((p) => rows.some((r) => r.uid === p.uid)) + 1;
      this.base = this.pending[arrived - 1]?.after ?? this.base;
      this.pending = this.pending.slice(arrived);
    } else
      try {
        const { folio, waiting: left, refused } = catchUp(this.base.folio, this.pending.map(bare), rows);
        this.rebuild(folio, left, rows, MET);
        for (const r of refused) this.aside(r.uid, r.edit, r.text, MET);
        if (refused.length) this.tell({ setAside: this.setAside }, null);
      } catch {
        // What the server says does not fit what is here: it is fetched anew, and what waits goes on top of it.
        void this.resync();
      }
    const steps = rows.filter((r) => r.uid !== undefined && waiting.has(r.uid));
    if (steps.length) this.tellHistory(steps.reduce(withRow, this.undo), []);
    this.keep();
  }

  /** Puts edits on top of another base; those that cannot be carried out there are set aside. */
  private rebuild(base: Folio, edits: readonly WaitingEdit[], rows: readonly HeardRow[], why: string): void {
    const back = [...this.pending].reverse().flatMap((p) => p.inverse);
    const tried = new Set(this.pending.filter((p) => p.tried).map((p) => wholeOf(p.uid)));
    const patches = [...back, ...rows.flatMap((r) => r.patches)];
    this.base = OpenFolio.of(base);
    let now = this.base;
    const pending: Pending[] = [];
    for (const { uid, burst, edit } of edits)
      try {
        const applied = now.apply(edit);
        now = applied.open;
        patches.push(...applied.patches);
        pending.push({ uid, burst, edit, ...applied, after: now, tried: tried.has(wholeOf(uid)) });
      } catch {
        this.aside(uid, edit, typedIn(edit), why);
      }
    this.pending = pending;
    this.tell({ folio: now.folio, setAside: this.setAside }, { patches, outside: true });
    this.keep();
  }

  private async resync(): Promise<void> {
    const whole = await this.reaching(() => this.ports.reload()).catch(() => null);
    if (!whole) return;
    this.seq = whole.seq;
    const waiting = this.pending.map(bare);
    this.pending = [];
    this.base = OpenFolio.of(whole.folio);
    this.tell({ folio: whole.folio }, { patches: null, outside: true });
    this.rebuild(whole.folio, waiting, [], 'The document was loaded again.');
  }

  private aside(uid: string, edit: Edit, text: string, why: string): void {
    const last = this.setAside[this.setAside.length - 1];
    const [a, b] = [last?.edit, edit];
    // What was typed letter by letter into one paragraph is one text.
    if (last && a?.kind === 'text.replace' && b.kind === 'text.replace' && a.args.from.paragraphId === b.args.from.paragraphId)
      this.setAside = [...this.setAside.slice(0, -1), { ...last, text: last.text + text }];
    else if (text || edit.kind !== 'text.replace')
      this.setAside = [...this.setAside, { id: uid, edit, text, why: why === MET && text ? DELETED : why }];
  }

  private keep(): void {
    this.ports.keep(this.seq, this.pending);
  }

  /** Tells of the document at once, and of what goes with it at the end of the turn, in one piece. */
  private tell(state: Partial<SessionState>, change: { patches: Patch[] | null; outside: boolean } | null): void {
    if (this.closed) return;
    if (change) return this.ports.changed({ ...this.takeUntold(), ...state }, change);
    if (!this.untold) queueMicrotask(() => this.untold && !this.closed && this.ports.changed(this.takeUntold(), null));
    this.untold = { ...this.untold, ...state };
  }

  private takeUntold(): Partial<SessionState> {
    const { untold } = this;
    this.untold = null;
    return untold ?? {};
  }

  private tellHistory(undo: Step[], redo: Step[]): void {
    this.undo = undo;
    this.redo = redo;
    this.tell({ undo, redo }, null);
  }
}

/** No answer, or a server that cannot answer just now: nothing is said of what was asked. */
const isAway = ({ status }: Problem): boolean => status === 0 || status >= 500;
const bare = ({ uid, burst, edit }: WaitingEdit): WaitingEdit => ({ uid, burst, edit });
const inWords = ({ message, advice }: Problem): string => `${message} ${advice ?? ''}`.trim();

/** What an edit would have typed. */
const typedIn = (edit: Edit): string =>
  edit.kind === 'text.replace'
    ? edit.args.content.map((piece) => piece.map((n) => (n.type === 'span' ? n.text : '')).join('')).join('\n')
    : '';

/** Steps with one more row: it belongs to the last step where it is of the same burst. */
function withRow(steps: Step[], row: HeardRow): Step[] {
  const last = steps[steps.length - 1];
  return last && 'rows' in last && last.burst === row.group
    ? [...steps.slice(0, -1), { burst: last.burst, rows: [...last.rows, row.seq] }]
    : [...steps, { burst: row.group, rows: [row.seq] }];
}
