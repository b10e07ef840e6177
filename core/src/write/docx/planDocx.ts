import { paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import type { Paragraph } from '../../folio/story.ts';
import { initialLetters } from '../../folio/text.ts';
import type { Treatment } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import { headingLevel } from '../../structure/outline.ts';
import { cellHeads, headsByPlace } from '../../structure/tableHeads.ts';
import { FLOW_SENTENCES, planFlow } from '../reflow/planFlow.ts';
import { adapted, dropped, excluded, kept, together } from '../treatments.ts';
import { hasSeveral, leadingOfParagraphs, leadingValues } from '../office/leading.ts';
import { OFFICE_SENTENCES } from '../office/officeSentences.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { DocxSettings } from './settings.ts';
import { styleNames } from './styleNames.ts';
import { canTravel } from './wordFonts.ts';
import { MOST_COLUMNS } from './wordTable.ts';
import type { Plan } from '../treatments.ts';

export const DOCX_SENTENCES = {
  ...FLOW_SENTENCES,
  ...OFFICE_SENTENCES,
  'role.styleOnly': 'Word processors know headings, lists and tables; what else a text is, they know by the name of its style alone.',
  'size.half': 'Sizes are told in half points: it is {points} here.',
  'style.renamed': 'The style “{from}” is called “{to}”: names must differ, and hold no commas.',
  'font.mayNotTravel': 'The font may not travel in a file that is worked on, or is of a kind that word processors cannot read.',
  'table.split': 'A table of the format has up to {most} columns: this one goes on in another below it.',
  'cell.headByPlace': 'Word processors tell what a cell heads by its row and column alone.',
  'note.inNote': 'A note inside a note stands in brackets.',
};
export type WordCode = keyof typeof DOCX_SENTENCES;

/** Plans every subject for running text. */
export const planRunning = (job: WriteJob<DocxSettings>): Plan<WordCode> =>
  planWords(
    job,
    planFlow(job.folio, job.composition, job.fonts, scopeOf(job.folio, job.composition, job.settings), {
      embedsFonts: true,
      marksPages: true,
      plays: false,
    }),
  );

/** What the format cannot say of words, after what `plan` says of all that such an output has in common. */
export function planWords<Code extends string>(job: WriteJob<DocxSettings>, plan: Plan<Code>): Plan<Code | WordCode> {
  const { folio, fonts, settings } = job;
  const { head } = folio;
  const leading = leadingOfParagraphs(folio, job.composition, settings.leading);
  const names = styleNames(folio, settings.headings === 'standard');
  const replacements = replacementsOf(settings);
  const insteadOf = (family: string): string | undefined => replacements.get(family.toLowerCase());

  /** Initials stand in the text itself: not in cells, nor in notes. */
  const held = new Set(
    Object.values(folio.stories).flatMap((s) =>
      Object.values(s.blocks).flatMap((b) =>
        b.kind === 'table'
          ? Object.values(b.cells).flatMap((cell) => cell.order)
          : b.content.flatMap((n) => (n.type === 'note' ? n.order : [])),
      ),
    ),
  );
  const inText = (paragraph: Paragraph): boolean => !held.has(paragraph.id);

  const treatLook = (paragraph: Paragraph): Treatment<WordCode> => {
    const look = resolveParagraph(head, paragraph);
    const { family } = fonts.match(look.character).familyOfFour;
    const instead = insteadOf(family);
    const { dropCapital } = look.paragraph;
    const letters = dropCapital && initialLetters(paragraph, dropCapital.characters);
    const pitch = leading(paragraph);
    const half = Math.round(look.character.size * 2) / 2;
    const renamed =
      settings.styles === 'named'
        ? stylesIn(paragraph)
            .map((s) => names.changed.get(s))
            .find(Boolean)
        : undefined;
    const reasons = together<WordCode>(
      instead ? adapted('font.replaced', { family: instead }) : kept,
      letters && (settings.way === 'laid' || settings.initials === 'plain' || !inText(paragraph)) ? adapted('initial.flat') : kept,
      hasSeveral(pitch) ? adapted('leading.one', leadingValues(pitch)) : kept,
      Math.abs(half - look.character.size) > 0.01 ? adapted('size.half', { points: half }) : kept,
      renamed ? adapted('style.renamed', renamed) : kept,
    );
    if (reasons.outcome !== 'kept') return reasons;
    return settings.fonts === 'names' ? adapted('font.byName') : kept;
  };

  const treatFont = (id: string): Treatment<WordCode> => {
    const font = head.fonts[id]!;
    const face = fonts.faceOf(font);
    if (!face) return dropped('font.substituted', { family: font.family });
    const instead = insteadOf(face.familyOfFour.family);
    if (instead) return adapted('font.replaced', { family: instead });
    if (settings.fonts === 'names') return excluded('font.byName');
    return canTravel(face) ? kept : dropped('font.mayNotTravel');
  };

  return (about) => {
    const { subject } = about;
    if (subject.kind === 'font') return treatFont(subject.id);
    const treatment = plan(about);
    if (treatment.outcome === 'excluded' || treatment.outcome === 'dropped') return treatment;
    if (settings.way === 'running' && settings.pictures === 'none' && subject.kind === 'item' && subject.aspect !== 'motion')
      return excluded('pictures.out');
    // What is drawn as part of a figure is no text of its own.
    if (treatment.code === 'figure.text') return treatment;
    return together<Code | WordCode>(treatment, treatWords(about));
  };

  function treatWords(about: SubjectInFolio): Treatment<WordCode> {
    const { subject } = about;
    const block = about.paragraph === undefined ? undefined : about.story?.blocks[about.paragraph];
    if (block?.kind === 'paragraph') {
      if (subject.aspect === 'look') return treatLook(block);
      if (subject.aspect === 'role') {
        const { element } = paragraphRole(head, block.style);
        const { list } = resolveParagraph(head, block).paragraph;
        return headingLevel(element) || element === 'p' || (element === 'li' && list) ? kept : adapted('role.styleOnly');
      }
      if (subject.kind === 'note' && isInNote(about, block.id)) return adapted('note.inNote');
    }
    if (subject.kind === 'table' || subject.kind === 'cell') {
      const table = Object.values(about.story!.blocks).find((b) => b.kind === 'table' && (b.id === subject.id || b.cells[subject.id]));
      if (table?.kind !== 'table') return kept;
      if (table.columns.length > MOST_COLUMNS) return adapted('table.split', { most: MOST_COLUMNS });
      const cell = subject.kind === 'cell' ? table.cells[subject.id] : undefined;
      const said = cell && cellHeads(head, about.story!, table, cell) !== null;
      if (cell && said !== headsByPlace(head, about.story!, table, cell)) return adapted('cell.headByPlace');
    }
    return kept;
  }
}

/** The styles of a paragraph and of the words in it, by kind and id. */
const stylesIn = ({ style, content }: Paragraph): string[] => [
  `paragraph ${style}`,
  ...content.flatMap((n) => (n.type === 'span' && n.style !== undefined ? [`character ${n.style}`] : [])),
];

/** Whether a paragraph stands in a note itself. */
const isInNote = ({ story }: SubjectInFolio, paragraph: string): boolean =>
  Object.values(story!.blocks).some(
    (b) => b.kind === 'paragraph' && b.content.some((n) => n.type === 'note' && n.order.includes(paragraph)),
  );
