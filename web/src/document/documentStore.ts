import { create } from 'zustand';
import { applyEdit, applyLogged, partPath } from '@elastic-folio/core';
import type { Edit, Folio, LogRow, Patch, PinSuggestion, Spread, Story } from '@elastic-folio/core';
import type { FamilyReport, Finding } from '@elastic-folio/core/check';
import type { ApiProblem } from '../api/client.ts';
import { api } from '../api/client.ts';
import { listen } from '../api/events.ts';
import { API_ROOT } from '../api/root.ts';
import type { Fill, FromWorker, PaintedSpread, ToWorker } from './compositionMessages.ts';
import { RecentSpreads } from './recentSpreads.ts';

interface Pending {
  edit: Edit;
  burst: string;
  patches: Patch[];
  inverse: Patch[];
}

export interface DocumentState {
  id: string | null;
  folio: Folio | null;
  loading: 'idle' | 'opening' | 'first' | 'all' | 'failed';
  problem: { message: string; advice: string } | null;
  /** Whether every change has reached the server. */
  kept: boolean;
  notice: string | null;
  undo: number[][];
  redo: number[][];
  painted: Record<string, PaintedSpread>;
  outlines: string[];
  overflow: Record<string, { lines: number; characters: number; words: number } | null>;
  /** The language whose edition lies on the table; null: the document’s own. */
  language: string | null;
  /** How long open texts of it are taken to become, beside their sources; null: they are in the document’s own language. */
  forecast: number | null;
  /** How far frames are filled in that language, beside the document’s own. */
  fill: Record<string, Fill>;
  /** Signs that no font has, by texts. */
  missing: Record<string, string[]>;
  findings: Finding[];
  /** Pictures that may be read at a paragraph. */
  suggestedPins: PinSuggestion[];
  /** What the text's families are set with; null until it is known. */
  fonts: FamilyReport[] | null;
  /** Counts document changes that did not come from this window's text editor. */
  outside: number;
  open(id: string): Promise<void>;
  close(): void;
  change(edits: Edit[], burst?: string): void;
  undoStep(): Promise<void>;
  redoStep(): Promise<void>;
  show(spreads: string[]): void;
  /** Lays an edition on the table, or the document in its own language; `forecast`: with open texts as long as they may become. */
  showLanguage(language: string | null, forecast?: number | null): void;
  /** Says what could not be done. */
  complain(what: string): void;
  dismiss(): void;
}

const windowId = Math.random().toString(36).slice(2, 10);
let bursts = 0;
export const newBurst = (): string => `${windowId}.${++bursts}`;

/** Who this is: kept by the browser, so that undo survives closing the window. */
export function actorId(): string {
  let actor = localStorage.getItem('folio.actor');
  if (!actor) localStorage.setItem('folio.actor', (actor = crypto.randomUUID()));
  return actor;
}

let worker: Worker | null = null;
let recent = new RecentSpreads();
let stopListening: (() => void) | null = null;
let seq = 0;
let outbox: Pending[] = [];
let inFlight: Pending[] = [];
let sending: Promise<void> | null = null;
let stamp = 0;
/** Rows of others came while this window's own were on their way: they are fetched afterwards. */
let catchUp = false;
const toWorker = (message: ToWorker): void => worker?.postMessage(message);

/** Spreads fetched before all else, and how many at a time after that. */
const FIRST_SPREADS = 2;
const SPREADS_AT_ONCE = 400;

/** No document is open. */
const CLOSED = {
  id: null,
  folio: null,
  loading: 'idle' as const,
  problem: null,
  kept: true,
  notice: null,
  undo: [] as number[][],
  redo: [] as number[][],
  painted: {},
  outlines: [] as string[],
  overflow: {},
  language: null as string | null,
  forecast: null as number | null,
  fill: {} as Record<string, Fill>,
  missing: {} as Record<string, string[]>,
  findings: [] as Finding[],
  suggestedPins: [] as PinSuggestion[],
  fonts: null as FamilyReport[] | null,
};

/** The open document: what the server has, with this window's own changes on top until they have arrived. */
export const useDocument = create<DocumentState>((set, get) => {
  const alter = (folio: Folio, patches: Patch[], more: Partial<DocumentState> = {}): void => {
    set({ folio, ...more });
    toWorker({ type: 'patches', patches, stamp: ++stamp });
  };

  /** Puts rows of others under changes of this window that have not arrived yet. */
  const rebase = (rows: LogRow[], keepPending: boolean): void => {
    const folio = get().folio;
    if (!folio || !rows.length) return;
    const pending = [...inFlight, ...outbox];
    const back = [...pending].reverse().flatMap((p) => p.inverse);
    const patches = [...back, ...rows.flatMap((r) => r.patches)];
    let next = applyLogged(folio, patches);
    seq = Math.max(seq, rows[rows.length - 1]!.seq);
    const redo = (list: Pending[]): Pending[] =>
      list.flatMap((p) => {
        try {
          const applied = applyEdit(next, p.edit);
          next = applied.folio;
          patches.push(...applied.patches);
          return [{ ...p, patches: applied.patches, inverse: applied.inverse }];
        } catch {
          return [];
        }
      });
    inFlight = keepPending ? redo(inFlight) : [];
    outbox = keepPending ? redo(outbox) : [];
    alter(next, patches, { outside: get().outside + 1 });
  };

  /** Fetches what others changed since this window last heard. Only while nothing of its own is on the way. */
  const takeMissed = async (id: string): Promise<void> => {
    try {
      const { rows } = await api.since(id, seq);
      if (get().id === id)
        rebase(
          rows.filter((r) => r.seq > seq),
          true,
        );
    } catch {
      // Not reachable just now: the stream of events says when it is again, and this is tried anew.
    }
  };

  const send = async (): Promise<void> => {
    const { id } = get();
    if (!id) return;
    while (get().id === id && (outbox.length || catchUp)) {
      if (!outbox.length) {
        catchUp = false;
        await takeMissed(id);
        continue;
      }
      const { burst } = outbox[0]!;
      const count = outbox.findIndex((p) => p.burst !== burst);
      inFlight = outbox.splice(0, count < 0 ? outbox.length : count);
      try {
        const answer = await api.edit(id, { base: seq, actor: actorId(), burst, edits: inFlight.map((p) => p.edit) });
        const missed = answer.missed.filter((r) => r.seq > seq);
        if (missed.length) rebase(missed, true);
        inFlight = [];
        seq = Math.max(seq, answer.rows[answer.rows.length - 1]!.seq);
        const { undo } = get();
        const rows = answer.rows.map((r) => r.seq);
        const last = undo[undo.length - 1];
        set({ undo: last && burst === lastBurst ? [...undo.slice(0, -1), [...last, ...rows]] : [...undo, rows], redo: [] });
        lastBurst = burst;
      } catch (error) {
        const problem = error as ApiProblem;
        if (problem.status === 409) {
          const rows = problem.rows.filter((r) => r.seq > seq);
          rebase(rows, false);
          set({ notice: `${problem.message} Your last change was not taken over; what they wrote is shown now.` });
        } else if (problem.status === 0) {
          outbox = [...inFlight, ...outbox];
          inFlight = [];
          set({ notice: `${problem.message} ${problem.advice}` });
          await new Promise((r) => setTimeout(r, 1500));
        } else {
          const back = [...inFlight, ...outbox].reverse().flatMap((p) => p.inverse);
          inFlight = [];
          outbox = [];
          alter(applyLogged(get().folio!, back), back, {
            outside: get().outside + 1,
            notice: `${problem.message} ${problem.advice ?? ''}`,
          });
        }
      }
    }
    set({ kept: outbox.length === 0 && inFlight.length === 0 });
  };
  const flush = (): Promise<void> => (sending ??= send().finally(() => (sending = null)));

  /** Sends what waits behind changes that are on their way, when the document is left: nobody waits for the answer. */
  const sendRest = (): void => {
    const { id } = get();
    let base = seq + inFlight.length;
    while (id && outbox.length) {
      const { burst } = outbox[0]!;
      const count = outbox.findIndex((p) => p.burst !== burst);
      const edits = outbox.splice(0, count < 0 ? outbox.length : count).map((p) => p.edit);
      void api.edit(id, { base, actor: actorId(), burst, edits }).catch(() => undefined);
      base += edits.length;
    }
  };
  // Where the page may come back as it was, it goes on sending then.
  globalThis.addEventListener?.('pagehide', (e) => !(e as PageTransitionEvent).persisted && sendRest());

  const takeBack = async (kind: 'undo' | 'redo'): Promise<void> => {
    await flush();
    const { id } = get();
    const stack = get()[kind];
    const rows = stack[stack.length - 1];
    if (!id || !rows) return;
    try {
      const answer = await api.undo(id, { actor: actorId(), rows });
      rebase(
        answer.rows.filter((r) => r.seq > seq),
        true,
      );
      lastBurst = '';
      const other = kind === 'undo' ? 'redo' : 'undo';
      set({
        [kind]: get()[kind].filter((r) => r !== rows),
        [other]: [...get()[other], answer.rows.map((r) => r.seq)],
      } as Partial<DocumentState>);
    } catch (error) {
      set({ notice: `${(error as Error).message} ${(error as ApiProblem).advice ?? ''}` });
    }
  };

  return {
    ...CLOSED,
    outside: 0,

    async open(id) {
      if (get().id === id && get().loading !== 'failed') return;
      get().close();
      set({ id, loading: 'opening' });
      try {
        recent = new RecentSpreads();
        worker = new Worker(new URL('./compositionWorker.ts', import.meta.url), { type: 'module' });
        worker.onmessage = (e: MessageEvent<FromWorker>) => {
          const m = e.data;
          if (m.type === 'painted') {
            if (m.spreads.length || m.outlines)
              set((s) => ({
                painted: { ...s.painted, ...Object.fromEntries(m.spreads.filter((p) => recent.has(p.spread)).map((p) => [p.spread, p])) },
                outlines: m.outlines ? [...s.outlines, m.outlines] : s.outlines,
              }));
            if (m.spreads.length) performance.mark(`painted-${m.stamp}`);
          } else if (m.type === 'state') set({ overflow: m.overflow, fill: m.fill, missing: m.missing });
          else if (m.type === 'findings') set({ findings: m.findings, fonts: m.fonts, suggestedPins: m.pins });
          else set({ notice: `The page could not be set: ${m.message}` });
        };
        const [opened, fonts] = await Promise.all([api.open(id, actorId()), api.fonts(id)]);
        if (get().id !== id) return;
        seq = opened.seq;
        toWorker({ type: 'open', id, root: API_ROOT, head: opened.head, editions: opened.editions, fonts });
        const { spreadOrder, storyOrder } = opened.head;
        const folio: Folio = { head: opened.head, spreads: {}, stories: {}, editions: opened.editions, recipes: opened.recipes };
        set({ folio, undo: opened.history.undo, redo: opened.history.redo });
        const take = async (spreads: string[], stories: string[], more: boolean): Promise<void> => {
          const paths = [...spreads.map(partPath.spread), ...stories.map(partPath.story)];
          const { parts } = await api.parts(id, paths);
          if (get().id !== id) return;
          const got = {
            spreads: Object.fromEntries(spreads.map((s) => [s, parts[partPath.spread(s)] as Spread])),
            stories: Object.fromEntries(stories.map((s) => [s, parts[partPath.story(s)] as Story])),
          };
          set((s) => ({
            folio: s.folio && {
              ...s.folio,
              spreads: { ...s.folio.spreads, ...got.spreads },
              stories: { ...s.folio.stories, ...got.stories },
            },
          }));
          toWorker({ type: 'parts', ...got, more });
        };
        // What is shown first comes first: the beginning, then the rest.
        await take(spreadOrder.slice(0, FIRST_SPREADS), storyOrder, spreadOrder.length > FIRST_SPREADS);
        if (get().id !== id) return;
        set({ loading: 'first' });
        for (let i = FIRST_SPREADS; i < spreadOrder.length; i += SPREADS_AT_ONCE) {
          await take(spreadOrder.slice(i, i + SPREADS_AT_ONCE), [], i + SPREADS_AT_ONCE < spreadOrder.length);
          if (get().id !== id) return;
        }
        set({ loading: 'all' });
        const lookForMissed = (): void => {
          catchUp = true;
          void flush();
        };
        stopListening = listen(
          (event) => {
            if (event.type === 'fonts') void api.fonts(id).then((list) => get().id === id && toWorker({ type: 'fonts', fonts: list }));
            if (event.type !== 'edits' || event.folio !== id) return;
            const news = event.rows.filter((r) => r.seq > seq);
            if (!news.length || news.every((r) => r.group.startsWith(`${windowId}.`))) return;
            if (!sending && news[0]!.seq === seq + 1) rebase(news, true);
            else lookForMissed();
          },
          // What others wrote while this window was opening or cut off came past without it.
          lookForMissed,
        );
      } catch (error) {
        const p = error as ApiProblem;
        set({ loading: 'failed', problem: { message: p.message, advice: p.advice ?? 'Reload the page.' } });
      }
    },

    close() {
      sendRest();
      worker?.terminate();
      worker = null;
      stopListening?.();
      stopListening = null;
      outbox = [];
      inFlight = [];
      set(CLOSED);
    },

    change(edits, burst = newBurst()) {
      let folio = get().folio;
      if (!folio) return;
      const patches: Patch[] = [];
      try {
        for (const edit of edits) {
          const applied = applyEdit(folio, edit);
          folio = applied.folio;
          patches.push(...applied.patches);
          outbox.push({ edit, burst, patches: applied.patches, inverse: applied.inverse });
        }
      } catch (error) {
        set({ notice: (error as Error).message });
        return;
      }
      alter(folio, patches, { kept: false });
      void flush();
    },

    undoStep: () => takeBack('undo'),
    redoStep: () => takeBack('redo'),
    show(spreads) {
      const gone = new Set(recent.show(spreads));
      if (gone.size) set((s) => ({ painted: Object.fromEntries(Object.entries(s.painted).filter(([id]) => !gone.has(id))) }));
      toWorker({ type: 'show', spreads });
    },
    showLanguage(language, forecast = null) {
      if (get().language === language && get().forecast === forecast) return;
      set({ language, forecast, painted: {}, fill: {} });
      toWorker({ type: 'language', language, forecast });
    },
    complain: (what) => set({ notice: what }),
    dismiss: () => set({ notice: null }),
  };
});

let lastBurst = '';
