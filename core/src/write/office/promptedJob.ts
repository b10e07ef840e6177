import { Composer } from '../../compose/index.ts';
import { promptedFolio } from '../../structure/prompts.ts';
import type { Prompted } from '../../structure/prompts.ts';
import type { WriteJob } from '../writer.ts';
import { excluded } from '../treatments.ts';
import type { Plan } from '../treatments.ts';

/** What a recipe says of templates. */
export interface TemplateSettings {
  template: boolean;
  words: 'prompts' | 'document';
}

const made = new WeakMap<object, { job: WriteJob<unknown>; prompted: Prompted }>();
const promptsOf = new WeakMap<object, ReadonlySet<string>>();

function promptedOf<S extends TemplateSettings>(job: WriteJob<S>): { job: WriteJob<S>; prompted: Prompted } | null {
  if (!job.settings.template || job.settings.words !== 'prompts') return null;
  let known = made.get(job);
  if (!known) {
    const prompted = promptedFolio(job.folio);
    known = { job: { ...job, folio: prompted.folio, composition: new Composer(job.fonts).compose(prompted.folio) }, prompted };
    made.set(job, known);
    promptsOf.set(known.job, prompted.prompts);
  }
  return known as { job: WriteJob<S>; prompted: Prompted };
}

/** The job of a template: with prompts for the words of the document, where the recipe asks for them. */
export const promptedJob = <S extends TemplateSettings>(job: WriteJob<S>): WriteJob<S> => promptedOf(job)?.job ?? job;

/** Which paragraphs of such a job are places for others’ words; null where none are. */
export const promptsIn = (job: WriteJob<unknown>): ReadonlySet<string> | null => promptsOf.get(job) ?? null;

/** Says of words that prompts stand for them; looks of the paragraphs that are left are what they are. */
export function withPrompts<S extends TemplateSettings, Code extends string>(
  job: WriteJob<S>,
  plan: Plan<Code>,
): Plan<Code | 'text.prompt'> {
  const prompted = promptedOf(job)?.prompted;
  if (!prompted) return plan;
  return (about) => {
    const treatment = plan(about);
    const { story, subject } = about;
    if (treatment.outcome === 'excluded' || !story || !prompted.stories.has(story.id)) return treatment;
    if (subject.kind === 'table' || subject.kind === 'cell') return treatment;
    const isLook = subject.kind === 'paragraph' && ['look', 'role', 'place'].includes(subject.aspect);
    if (isLook && prompted.prompts.has(subject.id)) return treatment;
    const isHead =
      subject.kind === 'paragraph' && prompted.folio.stories[story.id]!.blocks[subject.id] && !prompted.prompts.has(subject.id);
    return isHead ? treatment : excluded('text.prompt');
  };
}
