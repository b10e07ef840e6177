import { z } from 'zod';
import { NotTaken } from '../intake/notTaken.ts';
import { EditSchema, Folio, Head, HeardRow } from '../index.ts';
import { NewerReport } from '../newer/report.ts';
import { LedgerEntry } from '../ledger/entry.ts';
import { PageSketch } from '../intake/pageSketch.ts';
import { Run } from './run.ts';

export const OutputState = z.object({
  recipe: z.string(),
  name: z.string(),
  output: z.string(),
  state: z.enum(['never', 'waiting', 'running', 'fresh', 'stale', 'failed', 'cancelled']),
  run: Run.nullable(),
  lastDone: Run.nullable(),
});
export type OutputState = z.infer<typeof OutputState>;

/** What a document that came from elsewhere did not bring with it. */
export const IntakeReport = z.object({
  notTaken: z.array(NotTaken),
  /** Whether a newer version of its source can be taken over it. */
  hasSource: z.boolean(),
});
export type IntakeReport = z.infer<typeof IntakeReport>;

/** A newer version of a document's source that has been read, and what it would bring. */
export const NewerProposal = z.object({ token: z.string(), name: z.string(), report: NewerReport });
export type NewerProposal = z.infer<typeof NewerProposal>;
/** What a person decided about it: which of our things the newer source's are (its ids → ours), and which texts stay as they are here. */
export const NewerChoice = z.object({ pairs: z.record(z.string(), z.string()), keep: z.array(z.string()) });
export type NewerChoice = z.infer<typeof NewerChoice>;

/** A sample as a file for trying intake, and what its format cannot hold of it. */
export const SampleFile = z.object({ name: z.string(), title: z.string(), bytes: z.number(), notHeld: z.array(z.string()) });
export type SampleFile = z.infer<typeof SampleFile>;

/** Files of another document that are to be stored with this one too. */
export const FilesOfAnother = z.object({ from: z.string(), media: z.array(z.string()).max(2000) });

export const ShelfEntry = z.object({
  id: z.string(),
  /** What the document calls itself, by which other documents may show it. */
  folio: z.string(),
  title: z.string(),
  changedAt: z.string(),
  pages: z.number(),
  width: z.number(),
  height: z.number(),
  language: z.string(),
  /** Its languages, and how many of its texts are translated into each. */
  editions: z.array(z.object({ language: z.string(), all: z.number(), done: z.number(), stale: z.number() })),
  cover: z.string(),
  /** What to look at; null while the document is being looked through. */
  openPoints: z.array(z.string()).nullable(),
  outputs: z.array(OutputState),
});
export type ShelfEntry = z.infer<typeof ShelfEntry>;

/** A sample document that is on its way to the shelf: pages that were read, and how many there are; none are known at first. */
export const ComingSample = z.object({ title: z.string(), page: z.number().int(), pages: z.number().int() });
export type ComingSample = z.infer<typeof ComingSample>;

export const OpenedDocument = z.object({
  id: z.string(),
  seq: z.number(),
  head: Head,
  recipes: Folio.shape.recipes,
  editions: Folio.shape.editions,
  /** Every spread and every text there is, by their ids: those that are read and those that stand aside, as speakers’ notes do. */
  spreads: z.array(z.string()),
  stories: z.array(z.string()),
  history: z.object({ undo: z.array(z.array(z.number())), redo: z.array(z.array(z.number())) }),
});
/** Parts by their paths, as they were at a row, or as they are now: what is asked for piece by piece belongs together. */
export const PartsAsked = z.object({ seq: z.number().int().min(0).optional(), paths: z.array(z.string()).max(100_000) });
export const Parts = z.object({ parts: z.record(z.string(), z.unknown()) });
const uid = z.string().min(1).max(100);
export const EditRequest = z.object({
  base: z.number().int().min(0),
  actor: z.string().min(1).max(80),
  edits: z
    .array(z.object({ uid, burst: z.string().min(1).max(80), edit: EditSchema }))
    .min(1)
    .max(200),
});
export const UndoRequest = z.object({
  /** The newest row that is known to whoever asks; without it they hear of no rows of others. */
  base: z.number().int().min(0).optional(),
  actor: z.string().min(1).max(80),
  rows: z.array(z.number().int()).min(1).max(2000),
  uid: uid.optional(),
});
const RefusedEdit = z.object({ uid: z.string(), edit: EditSchema, text: z.string(), by: z.array(z.number()) });
export const EditAnswer = z.object({ rows: z.array(HeardRow), missed: z.array(HeardRow), refused: z.array(RefusedEdit) });
export type EditAnswer = { rows: HeardRow[]; missed: HeardRow[]; refused: z.infer<typeof RefusedEdit>[] };

export const OutputKind = z.object({
  id: z.string(),
  label: z.string(),
  about: z.string(),
  version: z.number(),
  view: z.enum(['pages', 'boxes', 'flow', 'texts']),
  entry: z.string(),
  /** Whether what is shown of it is drawn from its files, since browsers cannot show these. */
  redrawn: z.boolean(),
  /** Whether what others change in it can be brought back. */
  comesBack: z.boolean(),
  settings: z.record(z.string(), z.unknown()),
  sentences: z.record(z.string(), z.string()),
  /** What it may be for: questions, and for their answers, in this order with blanks between, the settings that they come to. */
  start: z
    .object({
      questions: z.array(
        z.object({
          id: z.string(),
          ask: z.string(),
          answers: z.array(
            z.object({
              id: z.string(),
              label: z.string(),
              pages: z.object({ least: z.number().optional(), most: z.number().optional() }).optional(),
            }),
          ),
        }),
      ),
      settled: z.record(z.string(), z.array(z.object({ setting: z.string(), value: z.unknown(), why: z.string() }))),
    })
    .optional(),
});
export type OutputKind = z.infer<typeof OutputKind>;
export const Ledger = z.object({
  output: z.string(),
  valid: z.boolean(),
  counts: z.record(z.string(), z.number()),
  entries: z.array(LedgerEntry),
});
/** A page that was made to be played: its origin's name, and the page's anchor there. */
export const Rehearsal = z.object({ rehearsal: z.string(), anchor: z.string() });
export const FontEntry = z.object({
  key: z.string(),
  family: z.string(),
  weight: z.number(),
  style: z.enum(['normal', 'italic']),
  origin: z.enum(['document', 'library', 'shipped']),
});
export type FontEntry = z.infer<typeof FontEntry>;

/** What open windows are told. */
/** What open windows hear. Rows that are too large for the stream are asked for; so is everything by a window that listened too slowly. */
export const ServerEvent = z.discriminatedUnion('type', [
  z.object({ type: z.literal('edits'), folio: z.string(), seq: z.number().int(), rows: z.array(HeardRow).optional() }),
  z.object({ type: z.literal('run'), folio: z.string(), run: Run }),
  z.object({ type: z.literal('shelf') }),
  z.object({ type: z.literal('fonts') }),
  /** Something of a document’s jobs for translators is another. */
  z.object({ type: z.literal('jobs'), folio: z.string() }),
  z.object({ type: z.literal('reading'), reading: z.string(), total: z.number().int(), page: PageSketch }),
  z.object({ type: z.literal('again') }),
]);
export type ServerEvent = z.infer<typeof ServerEvent>;
