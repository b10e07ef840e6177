import { paragraphRole, resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import type { Judgement } from '../../ledger/entry.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import { headingLevel } from '../../structure/outline.ts';
import { cellHeads } from '../../structure/tableHeads.ts';
import { FLOW_SENTENCES, judgeFlow } from '../reflow/judgeFlow.ts';
import { adapted, excluded, kept } from '../judgements.ts';
import { hasSeveral, leadingOfParagraphs, leadingValues } from '../office/leading.ts';
import { FIXED_PAGE_SENTENCES } from '../pages/judgeFixedPage.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { BOX_SENTENCES, OFFICE_SENTENCES, OPEN_SENTENCES } from '../office/officeSentences.ts';
import { judgePlaces } from './judgeLaidOdt.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { OdtSettings } from './settings.ts';

export const ODT_SENTENCES: Record<string, string> = {
  ...FLOW_SENTENCES,
  ...FIXED_PAGE_SENTENCES,
  ...OFFICE_SENTENCES,
  ...BOX_SENTENCES,
  ...OPEN_SENTENCES,
  'role.styleOnly': 'Word processors know headings, lists and tables; what else a text is, they know by the name of its style alone.',
  'cell.headByRow': 'Tables of the format know rows as heads, and no columns.',
};

/** Judges every subject for a text document of OpenDocument. */
export function judgeOdt(job: WriteJob<OdtSettings>): (about: SubjectInFolio) => Judgement {
  const { folio, composition, fonts, settings } = job;
  const { head } = folio;
  const laid = settings.way === 'laid';
  const replacements = replacementsOf(settings);
  const leading = leadingOfParagraphs(folio, composition, settings.leading);
  const judge = laid
    ? judgePlaces(job)
    : judgeFlow(folio, composition, fonts, scopeOf(folio, composition, settings), { embedsFonts: true, marksPages: true, plays: false });
  return (about) => {
    const { subject } = about;
    const judged = judge(about);
    if (subject.kind === 'font') {
      const instead = replacements.get(head.fonts[subject.id]!.family.toLowerCase());
      if (instead) return adapted('font.replaced', { family: instead });
      return judged.outcome === 'kept' ? excluded('font.byName') : judged;
    }
    if (judged.outcome === 'excluded' || judged.outcome === 'dropped') return judged;
    if (!laid && settings.pictures === 'none' && subject.kind === 'item' && subject.aspect !== 'motion') return excluded('pictures.out');
    if (judged.outcome !== 'kept') return judged;
    if (subject.kind === 'cell') {
      const table = Object.values(about.story!.blocks).find((b) => b.kind === 'table' && b.cells[subject.id]);
      if (table?.kind !== 'table') return judged;
      const cell = table.cells[subject.id]!;
      return cell.row < table.headerRows === (cellHeads(head, about.story!, table, cell) !== null) ? kept : adapted('cell.headByRow');
    }
    const block = about.paragraph && about.story!.blocks[about.paragraph];
    if (!block || block.kind !== 'paragraph') return judged;
    if (subject.aspect === 'role') {
      const { element } = paragraphRole(head, block.style);
      const { list } = resolveParagraph(head, block).paragraph;
      return headingLevel(element) || element === 'p' || (element === 'li' && list) ? kept : adapted('role.styleOnly');
    }
    if (subject.aspect !== 'look') return judged;
    const { character, paragraph } = resolveParagraph(head, block);
    const family = replacements.get(character.fontFamily.toLowerCase());
    if (family) return adapted('font.replaced', { family });
    const pitch = leading(block);
    if (hasSeveral(pitch)) return adapted('leading.one', leadingValues(pitch));
    const looks = [character, ...block.content.flatMap((n) => (n.type === 'span' ? [resolveSpan(head, character, n)] : []))];
    const isMore = looks.some((c) => c.stroke !== null || c.verticalScale !== 1 || Object.values(c.features).some((on) => on > 0));
    return isMore || paragraph.ruleAbove || paragraph.ruleBelow ? adapted('look.partly') : adapted('font.byName');
  };
}
