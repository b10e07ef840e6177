import { z } from 'zod';
import type { Folio } from '../folio/folio.ts';
import type { Composition } from '../compose/marks.ts';
import { PAGE_RANGE, pageNumbers } from '../folio/pageRange.ts';
import { pagesOf, storyOfFrame } from '../folio/traverse.ts';
import { FolioError } from '../ports/ports.ts';
import { cutIntoSegments } from './cut.ts';
import { keyOf, wordsOf } from './parts.ts';
import { shippedRules } from './sentenceRules.ts';
import { readSrx } from './srx.ts';
import type { SentenceRules } from './srx.ts';
import { segmentId } from './unit.ts';
import type { CutUnit, Unit, UnitKind } from './unit.ts';
import { unitsOf } from './unitsOf.ts';

const goesOrStays = { out: 'Stays here', in: 'Goes out' };
const group = 'What goes out';
const choice = (title: string, help: string, usual: 'in' | 'out') =>
  z.enum(['out', 'in']).default(usual).meta({ title, help, group, labels: goesOrStays });

/** What of a document goes to a translator; each choice has its effect on what it costs. */
export const choiceOfTexts = {
  pages: z
    .string()
    .regex(PAGE_RANGE, 'must be written like 2-5, 8')
    .default('')
    .meta({ title: 'Pages', help: 'Texts that are seen on these pages, for example 2-5, 8. Empty: all.', group }),
  strands: z.string().max(2000).default('').meta({
    title: 'Strands',
    help: 'Only these strands of the reading path, by their names, one a line. Empty: all.',
    group,
    format: 'lines',
  }),
  styles: z.string().max(2000).default('').meta({
    title: 'Styles',
    help: 'Only texts in these paragraph styles, by their names, one a line. Empty: all.',
    group,
    format: 'lines',
  }),
  hiddenLayers: choice('Hidden layers', 'Texts that lie on hidden layers, such as notes to the printer.', 'out'),
  masters: choice('Master pages', 'What repeats from page to page, such as running heads.', 'in'),
  altTexts: choice('Alt texts', 'What readers hear in place of pictures.', 'in'),
  metadata: choice('About the document', 'Its title, description and keywords.', 'in'),
  notes: choice('Notes', 'Footnotes and endnotes.', 'in'),
  speakersNotes: choice('Speaker’s notes', 'What is said to pages when they are shown.', 'in'),
  outline: choice('Headings for lists', 'Other words that lists of contents and cross-references show.', 'in'),
  linkTargets: choice('Addresses of links', 'Addresses that links lead to, where another language has its own.', 'out'),
  fieldLabels: choice('Form fields', 'Labels, choices and words on buttons.', 'in'),
  captions: choice('Words of films and sounds', 'What is said in films and sounds, where it is written down.', 'in'),
  onlyNumbers: choice('Only numbers', 'Texts that hold nothing but numbers and signs.', 'out'),
  otherLanguages: choice('Other languages', 'Passages that are in another language than the document.', 'in'),
  repeated: z
    .enum(['all', 'first'])
    .default('all')
    .meta({
      title: 'Repeated texts',
      help: 'Whether what stands in several places goes out each time, or once for all of them.',
      group,
      labels: { all: 'Each time', first: 'Once' },
    }),
  cut: z
    .enum(['paragraphs', 'sentences'])
    .default('paragraphs')
    .meta({
      title: 'Segments',
      help: 'Sentences find more in a memory; paragraphs leave translators free to part them otherwise.',
      group,
      labels: { paragraphs: 'Paragraphs', sentences: 'Sentences' },
    }),
  rules: z
    .string()
    .max(500_000)
    .default('')
    .meta({
      title: 'Rules for sentences',
      help: 'A file of rules in the SRX format. Empty: rules for common languages.',
      group,
      format: 'lines',
      showIf: { cut: ['sentences'] },
    }),
};
export const ChoiceOfTexts = z.object(choiceOfTexts);
export type ChoiceOfTexts = z.infer<typeof ChoiceOfTexts>;

/** The choice that decides on a kind of text; all others go out as they are. */
const CHOICE: Partial<
  Record<UnitKind, 'masters' | 'altTexts' | 'metadata' | 'notes' | 'speakersNotes' | 'outline' | 'linkTargets' | 'fieldLabels' | 'captions'>
> = {
  master: 'masters',
  alt: 'altTexts',
  metadata: 'metadata',
  note: 'notes',
  speakersNote: 'speakersNotes',
  outline: 'outline',
  linkTarget: 'linkTargets',
  fieldLabel: 'fieldLabels',
  caption: 'captions',
};

/** Why a text stays here. */
export type StaysBecause = keyof ChoiceOfTexts | 'repeatedBefore' | 'nothing';

export interface Outgoing {
  units: CutUnit[];
  /** What stays, and why. */
  stays: { unit: Unit; because: StaysBecause }[];
}

/** The texts that go out, cut into segments; and those that stay. */
export function goesOut(folio: Folio, chosen: ChoiceOfTexts, composition?: Composition): Outgoing {
  const taken = filterFor(folio, chosen);
  const rules = rulesOf(chosen);
  const seen = new Set<string>();
  const out: Outgoing = { units: [], stays: [] };
  for (const unit of unitsOf(folio, composition)) {
    const because = taken(unit);
    if (because) {
      out.stays.push({ unit, because });
      continue;
    }
    const cut = cutUnit(unit, rules);
    if (!cut.segments.length) {
      out.stays.push({ unit, because: 'nothing' });
      continue;
    }
    if (chosen.repeated === 'first') {
      const key = cut.segments.map((s) => keyOf(s.source)).join('\n');
      if (seen.has(key)) {
        out.stays.push({ unit, because: 'repeatedBefore' });
        continue;
      }
      seen.add(key);
    }
    out.units.push(cut);
  }
  return out;
}

/** Rules by which texts are cut; none: at paragraphs and tabs only. */
export const rulesOf = ({ cut, rules }: Pick<ChoiceOfTexts, 'cut' | 'rules'>): SentenceRules | null =>
  cut === 'paragraphs' ? null : rules.trim() ? readSrx(rules) : shippedRules();

export function cutUnit(unit: Unit, rules: SentenceRules | null): CutUnit {
  const { before, segments, codes } = cutIntoSegments(unit, unit.language, rules);
  return {
    ...unit,
    ...(before && { before }),
    codes,
    segments: segments.map((s, i) => ({ id: segmentId(unit.id, i, segments.length), ...s })),
  };
}

const lines = (text: string): string[] =>
  text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean);

function filterFor(folio: Folio, chosen: ChoiceOfTexts): (unit: Unit) => StaysBecause | null {
  const pages = chosen.pages.trim() ? pageNumbers(chosen.pages, pagesOf(folio).length) : null;
  const styles = lines(chosen.styles);
  for (const name of styles)
    if (!Object.values(folio.head.paragraphStyles).some((s) => s.name === name))
      throw new FolioError('texts.style', `The document has no paragraph style “${name}”.`, 'Write its name as the document has it.');
  const strands = lines(chosen.strands);
  const inStrands = strands.length ? storiesOfStrands(folio, strands) : null;
  return (unit) => {
    if (pages && !unit.pages.some((p) => pages.has(p))) return 'pages';
    if (styles.length && !(unit.style !== undefined && styles.includes(unit.style))) return 'styles';
    if (inStrands && !(unit.story !== undefined && inStrands.has(unit.story))) return 'strands';
    if (unit.hidden && chosen.hiddenLayers === 'out') return 'hiddenLayers';
    const decides = CHOICE[unit.kind];
    if (decides && chosen[decides] === 'out') return decides;
    const words = wordsOf(unit.parts);
    if (chosen.onlyNumbers === 'out' && !/\p{L}/u.test(words)) return 'onlyNumbers';
    if (chosen.otherLanguages === 'out' && primary(unit.language) !== primary(folio.head.metadata.language)) return 'otherLanguages';
    return null;
  };
}

/** The main part of a language tag: `de` of `de-AT`. */
export const primary = (language: string): string => language.split('-')[0]!.toLowerCase();

function storiesOfStrands(folio: Folio, names: readonly string[]): Set<string> {
  const frames = storyOfFrame(folio);
  const stories = new Set<string>();
  for (const name of names) {
    const strand = folio.head.structure.strands.find((s) => s.name === name);
    if (!strand)
      throw new FolioError('texts.strand', `The reading path has no strand “${name}”.`, 'Write its name as the structure has it.');
    for (const { spread, item } of strand.entries) {
      const held = folio.spreads[spread]?.items[item];
      for (const id of held?.kind === 'group' ? held.members : [item]) if (frames.has(id)) stories.add(frames.get(id)!);
    }
  }
  return stories;
}
