import { create } from 'zustand';
import { partPath } from '@elastic-folio/core';
import type { Edit, Folio, PinSuggestion, Spread, Story } from '@elastic-folio/core';
import type { FamilyReport, Finding } from '@elastic-folio/core/check';
import type { ApiProblem } from '../api/client.ts';
import { api } from '../api/client.ts';
import { listen } from '../api/events.ts';
import { API_ROOT } from '../api/root.ts';
import type { Fill, FromWorker, PaintedNews, PaintedSpread, ToWorker } from './compositionMessages.ts';
import { onAsked } from './arrival.ts';
import { AT_ONCE, EditSession } from './editSession.ts';
import { actorId, newBurst, windowId } from './identity.ts';
import type { SessionPorts, SetAside, Step } from './editSession.ts';
import { RecentSpreads } from './recentSpreads.ts';
import { holdWindow, keepUnsent, leftUnsent } from './unsentEdits.ts';

export interface DocumentState {
  id: string | null;
  folio: Folio | null;
  loading: 'idle' | 'opening' | 'first' | 'all' | 'failed';
  problem: { message: string; advice: string } | null;
  /** Whether every change has reached the server. */
  kept: boolean;
  notice: string | null;
  undo: Step[];
  redo: Step[];
  /** Changes of one’s own that could not be kept, for having back what was typed. */
  setAside: SetAside[];
  painted: Record<string, PaintedSpread>;
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
  /** Counts document changes that were not typed into the text beside the page. */
  outside: number;
  open(id: string): Promise<void>;
  close(): void;
  /** Changes the document; where that is impossible, it is said. */
  change(edits: Edit[], burst?: string): void;
  /** The same, for whoever must know: false where it was impossible. */
  tryChange(edits: Edit[], burst: string): boolean;
  /** The same for what is typed into a text: false where it was impossible. `folio` follows once nobody types. */
  type(edits: Edit[], burst: string): boolean;
  /** The document with every letter that was typed; `folio` is the same from then on. */
  fresh(): Folio | null;
  /** Resolves when the server has every change of this window. */
  arrived(): Promise<void>;
  undoStep(): Promise<void>;
  redoStep(): Promise<void>;
  /** Takes one of the changes that could not be kept off the list. */
  dismissAside(id: string): void;
  show(spreads: string[]): void;
  /** Lays an edition on the table, or the document in its own language; `forecast`: with open texts as long as they may become. */
  showLanguage(language: string | null, forecast?: number | null): void;
  /** Says what could not be done. */
  complain(what: string): void;
  dismiss(): void;
}

let worker: Worker | null = null;
let session: EditSession | null = null;
let recent = new RecentSpreads();
let stopListening: (() => void) | null = null;
let stamp = 0;
let typing: ReturnType<typeof setTimeout> | undefined;
/** The document is put together after so long a pause in typing, or when somebody asks for it. */
const TYPING_MS = 300;
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
  undo: [] as Step[],
  redo: [] as Step[],
  setAside: [] as SetAside[],
  painted: {},
  overflow: {},
  language: null as string | null,
  forecast: null as number | null,
  fill: {} as Record<string, Fill>,
  missing: {} as Record<string, string[]>,
  findings: [] as Finding[],
  suggestedPins: [] as PinSuggestion[],
  fonts: null as FamilyReport[] | null,
};

/** A spread with what was painted anew of it. */
function taken(before: PaintedSpread | undefined, { order, changed, ...rest }: PaintedNews): PaintedSpread {
  const items = new Map([...(before?.items ?? []), ...changed].map((i) => [i.item, i]));
  return { ...rest, items: order.flatMap((id) => items.get(id) ?? []) };
}

/** The open document: what the server has, with this window's own changes on top until they have arrived. */
export const useDocument = create<DocumentState>((set, get) => {
  const isOpen = (id: string): boolean => get().id === id;

  /** Fetches spreads and texts by their ids, as they were at a row. */
  const fetchParts = async (id: string, seq: number, spreads: string[], stories: string[]): Promise<Pick<Folio, 'spreads' | 'stories'>> => {
    const { parts } = await api.parts(id, { seq, paths: [...spreads.map(partPath.spread), ...stories.map(partPath.story)] });
    return {
      spreads: Object.fromEntries(spreads.map((s) => [s, parts[partPath.spread(s)] as Spread])),
      stories: Object.fromEntries(stories.map((s) => [s, parts[partPath.story(s)] as Story])),
    };
  };

  const ports = (id: string): SessionPorts => ({
    actor: actorId(),
    send: (request) => api.edit(id, request),
    undo: (request) => api.undo(id, request),
    since: (seq) => api.since(id, seq),
    async reload() {
      const { seq, head, editions, recipes, spreads, stories } = await api.open(id, actorId());
      return { folio: { head, editions, recipes, ...(await fetchParts(id, seq, spreads, stories)) }, seq };
    },
    keep: (base, edits) => keepUnsent(id, windowId, { base, edits: edits.map(({ uid, burst, edit }) => ({ uid, burst, edit })) }),
    changed(state, change) {
      if (!isOpen(id)) return;
      set({ ...state, ...(change?.outside && { outside: get().outside + 1 }) });
      if (!change) return;
      if (change.patches) toWorker({ type: 'patches', patches: change.patches, stamp: ++stamp });
      else if (state.folio) toWorker({ type: 'whole', folio: state.folio, stamp: ++stamp });
    },
    pause: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
  });

  /** Sends what an earlier window could not: what met other changes meanwhile is set aside here. */
  const sendLeft = async (id: string, to: EditSession): Promise<void> => {
    for (const { left, done } of await leftUnsent(id))
      try {
        for (let i = 0; i < left.edits.length; i += AT_ONCE) {
          const edits = left.edits.slice(i, i + AT_ONCE);
          const { refused } = await api.edit(id, { base: left.base, actor: actorId(), edits: [...edits] });
          to.putAside(refused, 'It was typed in a window that was closed before it could be saved.');
        }
        done();
      } catch (error) {
        // Without an answer it stays where it is, for the next time.
        if ((error as ApiProblem).status === 0) return;
        to.putAside(
          left.edits.map(({ uid, edit }) => ({ uid, edit, text: '', by: [] })),
          (error as Error).message,
        );
        done();
      }
  };

  /** Sends what has not arrived when the document is left: nobody waits for the answer. */
  const leave = (): void => {
    const { id } = get();
    const rest = session?.close();
    session = null;
    if (!id || !rest) return;
    for (let i = 0; i < rest.edits.length; i += AT_ONCE)
      void api
        .edit(id, { base: rest.base, actor: actorId(), edits: rest.edits.slice(i, i + AT_ONCE) })
        .then(() => i + AT_ONCE >= rest.edits.length && keepUnsent(id, windowId, { base: 0, edits: [] }))
        .catch(() => undefined);
  };
  // Where the page may come back as it was, it goes on sending then.
  globalThis.addEventListener?.('pagehide', (e) => !(e as PageTransitionEvent).persisted && leave());
  holdWindow(windowId);
  onAsked(async (id) => void (isOpen(id) && (await session?.flush())));

  const take = (m: FromWorker): void => {
    if (m.type === 'painted') {
      if (!m.spreads.length) return;
      set((s) => ({
        painted: {
          ...s.painted,
          ...Object.fromEntries(m.spreads.filter((p) => recent.has(p.spread)).map((p) => [p.spread, taken(s.painted[p.spread], p)])),
        },
      }));
      performance.mark(`painted-${m.stamp}`);
    } else if (m.type === 'state') set({ overflow: m.overflow, fill: m.fill, missing: m.missing });
    else if (m.type === 'findings') set({ findings: m.findings, fonts: m.fonts, suggestedPins: m.pins });
    else set({ notice: `The page could not be set: ${m.message}` });
  };

  return {
    ...CLOSED,
    outside: 0,

    async open(id) {
      if (isOpen(id) && get().loading !== 'failed') return;
      get().close();
      set({ id, loading: 'opening' });
      try {
        recent = new RecentSpreads();
        worker = new Worker(new URL('./compositionWorker.ts', import.meta.url), { type: 'module' });
        worker.onmessage = (e: MessageEvent<FromWorker>) => take(e.data);
        const [opened, fonts] = await Promise.all([api.open(id, actorId()), api.fonts(id)]);
        if (!isOpen(id)) return;
        const { seq, head, editions, recipes, history } = opened;
        toWorker({ type: 'open', id, root: API_ROOT, head, editions, fonts });
        const mine = new EditSession({ head, spreads: {}, stories: {}, editions, recipes }, seq, history, ports(id));
        session = mine;
        const steps = (list: number[][]): Step[] => list.map((rows) => ({ burst: '', rows }));
        set({ folio: mine.folio, undo: steps(history.undo), redo: steps(history.redo) });
        const takeParts = async (spreads: string[], stories: string[], more: boolean): Promise<boolean> => {
          const parts = await fetchParts(id, seq, spreads, stories);
          if (session !== mine) return false;
          mine.addParts(parts);
          toWorker({ type: 'parts', ...parts, more });
          return true;
        };
        // What is shown first comes first: the beginning, then the rest.
        const first = head.spreadOrder.slice(0, FIRST_SPREADS);
        const rest = opened.spreads.filter((s) => !first.includes(s));
        if (!(await takeParts(first, opened.stories, rest.length > 0))) return;
        set({ loading: 'first' });
        for (let i = 0; i < rest.length; i += SPREADS_AT_ONCE)
          if (!(await takeParts(rest.slice(i, i + SPREADS_AT_ONCE), [], i + SPREADS_AT_ONCE < rest.length))) return;
        mine.complete();
        set({ loading: 'all' });
        stopListening = listen(
          (event) => {
            if (event.type === 'fonts') void api.fonts(id).then((list) => isOpen(id) && toWorker({ type: 'fonts', fonts: list }));
            else if (event.type === 'edits' && event.folio === id) mine.hear(event.seq, event.rows);
            else if (event.type === 'again') mine.lookForMissed();
          },
          // What others wrote while this window was opening or cut off came past without it.
          () => mine.lookForMissed(),
        );
        void sendLeft(id, mine);
      } catch (error) {
        if (!isOpen(id)) return;
        const p = error as ApiProblem;
        set({ loading: 'failed', problem: { message: p.message, advice: p.advice ?? 'Reload the page.' } });
      }
    },

    close() {
      leave();
      worker?.terminate();
      worker = null;
      stopListening?.();
      stopListening = null;
      set(CLOSED);
    },

    change: (edits, burst = newBurst()) => void session?.change(edits, burst),
    tryChange: (edits, burst) => session?.change(edits, burst) ?? false,
    type(edits, burst) {
      const done = session?.change(edits, burst, true) ?? false;
      clearTimeout(typing);
      typing = setTimeout(() => get().fresh(), TYPING_MS);
      return done;
    },
    fresh() {
      clearTimeout(typing);
      const folio = session?.folio ?? get().folio;
      if (folio !== get().folio) set({ folio });
      return folio;
    },
    arrived: async () => session?.flush(),
    undoStep: async () => session?.takeBack('undo'),
    redoStep: async () => session?.takeBack('redo'),
    dismissAside: (id) => session?.dismissAside(id),
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
