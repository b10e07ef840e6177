import { z } from 'zod';
import { Language } from '../folio/ids.ts';
import { Analysis, Rates } from '../language/analyse.ts';
import { ChoiceOfTexts } from '../language/goesOut.ts';

/** Where a job is: asked for, taken on, refused, delivered, or taken back by the designer. */
export const JobState = z.enum(['invited', 'accepted', 'declined', 'done', 'withdrawn']);
export type JobState = z.infer<typeof JobState>;

const day = z.string().regex(/^\d{4}-\d{2}-\d{2}$/, 'must be a day such as 2027-01-15');
const said = z.string().trim().max(5000);

/** What a translator may do besides translating and asking. */
export const JobMay = z.object({
  /** Sees what the designer’s memory has of the texts of the job. */
  seesMemory: z.boolean().default(true),
  /** May say of translations that they were reviewed. */
  reviews: z.boolean().default(false),
});
export type JobMay = z.infer<typeof JobMay>;

/** Someone who translates a document here, or the simulated service, which sends a file back. */
export const JobFor = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('person'),
    name: z.string().trim().min(1, 'is missing').max(200),
    address: z.email('must be an address of mail').max(320),
  }),
  z.object({
    kind: z.literal('service'),
    seconds: z.number().int().min(0).max(86_400).default(20),
    breaksCodes: z.boolean().default(false),
  }),
]);
export type JobFor = z.infer<typeof JobFor>;

/** What a designer asks for. */
export const NewJob = z.object({
  language: Language,
  for: JobFor,
  chosen: ChoiceOfTexts.prefault({}),
  may: JobMay.prefault({}),
  due: day.nullable().default(null),
  message: said.default(''),
  rates: Rates.prefault({}),
  /** How many days the link in the mail is good for. */
  days: z.number().int().min(1).max(365).default(30),
});
export type NewJob = z.infer<typeof NewJob>;

/** A piece of work for a translator: what goes to them, what it came to when it was asked for, and how it stands. */
export const TranslationJob = NewJob.omit({ days: true }).extend({
  id: z.string(),
  folio: z.string(),
  state: JobState,
  /** The texts of the job, by the names of units: what was counted is what is asked for. */
  units: z.array(z.string()),
  analysis: Analysis,
  /** In what is sent and answered, times are ISO 8601. */
  asked: z.string(),
  until: z.string(),
  answered: z.string().nullable(),
  finished: z.string().nullable(),
  /** What was delivered as a file, by its name; taken in as any file that comes back. */
  delivered: z.string().nullable(),
});
export type TranslationJob = z.infer<typeof TranslationJob>;

/** How many texts of a job there are, and how many are translated by now. */
export const JobProgress = z.object({ all: z.number(), done: z.number() });
export const JobOnList = TranslationJob.omit({ units: true }).extend({ progress: JobProgress });
export type JobOnList = z.infer<typeof JobOnList>;

/** What a translator is told of their job, and nothing else of what there is here. */
export const GuestJob = JobOnList.omit({ analysis: true, rates: true, for: true, chosen: true, delivered: true }).extend({
  title: z.string(),
  source: Language,
  name: z.string(),
  units: z.array(z.string()),
  pages: z.array(z.number()),
  words: z.number(),
});
export type GuestJob = z.infer<typeof GuestJob>;

/** What a translator says to their job as a whole. */
export const GuestAnswer = z.discriminatedUnion('says', [
  z.object({ says: z.literal('accept') }),
  z.object({ says: z.literal('decline'), why: said.default('') }),
  z.object({ says: z.literal('done') }),
  z.object({ says: z.literal('question'), text: said.min(1, 'is missing'), unit: z.string().max(200).optional() }),
]);
export type GuestAnswer = z.infer<typeof GuestAnswer>;

/** Something that the designer is told of. */
export const Notice = z.object({
  id: z.string(),
  folio: z.string(),
  title: z.string(),
  job: z.string(),
  language: Language,
  kind: z.enum(['accepted', 'declined', 'done', 'question', 'delivered', 'failed']),
  says: z.string(),
  unit: z.string().nullable(),
  at: z.string(),
  seen: z.boolean(),
});
export type Notice = z.infer<typeof Notice>;

/** A mail in the simulated outbox. */
export const Letter = z.object({
  id: z.string(),
  to: z.string(),
  subject: z.string(),
  text: z.string(),
  /** The link in it, so that it can be opened from here. */
  link: z.string().nullable(),
  at: z.string(),
});
export type Letter = z.infer<typeof Letter>;
