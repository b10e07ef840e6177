import { paragraphRole, resolveParagraph } from '../../folio/resolve.ts';
import { headingLevel } from '../../structure/outline.ts';
import { cellHeads } from '../../structure/tableHeads.ts';
import { FLOW_SENTENCES, planFlow } from '../reflow/planFlow.ts';
import { adapted, excluded, kept, together } from '../treatments.ts';
import { hasSeveral, leadingOfParagraphs, leadingValues } from '../office/leading.ts';
import { FIXED_PAGE_SENTENCES } from '../pages/planFixedPage.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { BOX_SENTENCES, OFFICE_SENTENCES, OPEN_SENTENCES } from '../office/officeSentences.ts';
import { planPlaces } from './planLaidOdt.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { OdtSettings } from './settings.ts';
import type { SubjectInFolio } from '../../ledger/subjects.ts';
import type { Treatment } from '../../ledger/entry.ts';
import type { Plan } from '../treatments.ts';
import { hasMoreThanOpenDocument } from '../opendocument/moreThanHeld.ts';

export const ODT_SENTENCES = {
  ...FLOW_SENTENCES,
  ...FIXED_PAGE_SENTENCES,
  ...OFFICE_SENTENCES,
  ...BOX_SENTENCES,
  ...OPEN_SENTENCES,
  'role.styleOnly': 'Word processors know headings, lists and tables; what else a text is, they know by the name of its style alone.',
  'cell.headByRow': 'Tables of the format know rows as heads, and no columns.',
};
export type OdtCode = keyof typeof ODT_SENTENCES;

/** Plans every subject for a text document of OpenDocument. */
export function planOdt(job: WriteJob<OdtSettings>): Plan<OdtCode> {
  const { folio, composition, fonts, settings } = job;
  const { head } = folio;
  const laid = settings.way === 'laid';
  const replacements = replacementsOf(settings);
  const leading = leadingOfParagraphs(folio, composition, settings.leading);
  const plan = laid
    ? planPlaces(job)
    : planFlow(folio, composition, fonts, scopeOf(folio, composition, settings), { embedsFonts: true, marksPages: true, plays: false });
  return (about) => {
    const { subject } = about;
    const treatment = plan(about);
    if (subject.kind === 'font') {
      const instead = replacements.get(head.fonts[subject.id]!.family.toLowerCase());
      if (instead) return adapted('font.replaced', { family: instead });
      return treatment.outcome === 'kept' ? excluded('font.byName') : treatment;
    }
    if (treatment.outcome === 'excluded' || treatment.outcome === 'dropped') return treatment;
    if (!laid && settings.pictures === 'none' && subject.kind === 'item' && subject.aspect !== 'motion') return excluded('pictures.out');
    // What is drawn as part of a figure is no text of its own.
    if (treatment.code === 'figure.text') return treatment;
    return together(treatment, treatWords(about));
  };

  /** What the format cannot say of words. */
  function treatWords(about: SubjectInFolio): Treatment<OdtCode> {
    const { subject } = about;
    if (subject.kind === 'cell') {
      const table = Object.values(about.story!.blocks).find((b) => b.kind === 'table' && b.cells[subject.id]);
      if (table?.kind !== 'table') return kept;
      const cell = table.cells[subject.id]!;
      return cell.row < table.headerRows === (cellHeads(head, about.story!, table, cell) !== null) ? kept : adapted('cell.headByRow');
    }
    const block = about.paragraph && about.story!.blocks[about.paragraph];
    if (!block || block.kind !== 'paragraph') return kept;
    if (subject.aspect === 'role') {
      const { element } = paragraphRole(head, block.style);
      const { list } = resolveParagraph(head, block).paragraph;
      return headingLevel(element) || element === 'p' || (element === 'li' && list) ? kept : adapted('role.styleOnly');
    }
    if (subject.aspect !== 'look') return kept;
    const resolved = resolveParagraph(head, block);
    const family = replacements.get(resolved.character.fontFamily.toLowerCase());
    const pitch = leading(block);
    const reasons = together<OdtCode>(
      family ? adapted('font.replaced', { family }) : kept,
      hasSeveral(pitch) ? adapted('leading.one', leadingValues(pitch)) : kept,
      hasMoreThanOpenDocument(head, block, resolved) ? adapted('look.partly') : kept,
    );
    return reasons.outcome === 'kept' ? adapted('font.byName') : reasons;
  }
}
