import { paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import type { Paragraph } from '../../folio/story.ts';
import { initialLetters } from '../../folio/text.ts';
import type { Judgement } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import { headingLevel } from '../../structure/outline.ts';
import { cellHeads, headsByPlace } from '../../structure/tableHeads.ts';
import { FLOW_SENTENCES, judgeFlow } from '../reflow/judgeFlow.ts';
import { adapted, dropped, excluded, kept } from '../judgements.ts';
import { hasSeveral, leadingOfParagraphs, leadingValues } from '../office/leading.ts';
import { OFFICE_SENTENCES } from '../office/officeSentences.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { DocxSettings } from './settings.ts';
import { styleNames } from './styleNames.ts';
import { canTravel } from './wordFonts.ts';
import { MOST_COLUMNS } from './wordTable.ts';

export const DOCX_SENTENCES: Record<string, string> = {
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

/** Judges every subject for running text. */
export const judgeRunning = (job: WriteJob<DocxSettings>): ((about: SubjectInFolio) => Judgement) =>
  judgeWords(
    job,
    judgeFlow(job.folio, job.composition, job.fonts, scopeOf(job.folio, job.composition, job.settings), {
      embedsFonts: true,
      marksPages: true,
      plays: false,
    }),
  );

/** What the format cannot say of words, after what `judge` says of all that such an output has in common. */
export function judgeWords(job: WriteJob<DocxSettings>, judge: (about: SubjectInFolio) => Judgement): (about: SubjectInFolio) => Judgement {
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

  const judgeLook = (paragraph: Paragraph): Judgement => {
    const look = resolveParagraph(head, paragraph);
    const { family } = fonts.match(look.character).familyOfFour;
    const instead = insteadOf(family);
    if (instead) return adapted('font.replaced', { family: instead });
    const { dropCapital } = look.paragraph;
    const letters = dropCapital && initialLetters(paragraph, dropCapital.characters);
    if (letters && (settings.way === 'laid' || settings.initials === 'plain' || !inText(paragraph))) return adapted('initial.flat');
    const pitch = leading(paragraph);
    if (hasSeveral(pitch)) return adapted('leading.one', leadingValues(pitch));
    const half = Math.round(look.character.size * 2) / 2;
    if (Math.abs(half - look.character.size) > 0.01) return adapted('size.half', { points: half });
    const renamed =
      settings.styles === 'named'
        ? stylesIn(paragraph)
            .map((s) => names.changed.get(s))
            .find(Boolean)
        : undefined;
    if (renamed) return adapted('style.renamed', renamed);
    return settings.fonts === 'names' ? adapted('font.byName') : kept;
  };

  const judgeFont = (id: string): Judgement => {
    const font = head.fonts[id]!;
    const face = fonts.faces.find((f) => f.family === font.family && f.weight === font.weight && f.style === font.style);
    if (!face) return dropped('font.substituted', { family: font.family });
    const instead = insteadOf(face.familyOfFour.family);
    if (instead) return adapted('font.replaced', { family: instead });
    if (settings.fonts === 'names') return excluded('font.byName');
    return canTravel(face) ? kept : dropped('font.mayNotTravel');
  };

  return (about) => {
    const { subject } = about;
    if (subject.kind === 'font') return judgeFont(subject.id);
    const judged = judge(about);
    if (judged.outcome === 'excluded' || judged.outcome === 'dropped') return judged;
    if (settings.way === 'running' && settings.pictures === 'none' && subject.kind === 'item' && subject.aspect !== 'motion')
      return excluded('pictures.out');
    if (judged.outcome !== 'kept') return judged;
    const block = about.paragraph === undefined ? undefined : about.story?.blocks[about.paragraph];
    if (block?.kind === 'paragraph') {
      if (subject.aspect === 'look') return judgeLook(block);
      if (subject.aspect === 'role') {
        const { element } = paragraphRole(head, block.style);
        const { list } = resolveParagraph(head, block).paragraph;
        return headingLevel(element) || element === 'p' || (element === 'li' && list) ? kept : adapted('role.styleOnly');
      }
      if (subject.kind === 'note' && isInNote(about, block.id)) return adapted('note.inNote');
    }
    if (subject.kind === 'table' || subject.kind === 'cell') {
      const table = Object.values(about.story!.blocks).find((b) => b.kind === 'table' && (b.id === subject.id || b.cells[subject.id]));
      if (table?.kind !== 'table') return judged;
      if (table.columns.length > MOST_COLUMNS) return adapted('table.split', { most: MOST_COLUMNS });
      const cell = subject.kind === 'cell' ? table.cells[subject.id] : undefined;
      const said = cell && cellHeads(head, about.story!, table, cell) !== null;
      if (cell && said !== headsByPlace(head, about.story!, table, cell)) return adapted('cell.headByPlace');
    }
    return judged;
  };
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
