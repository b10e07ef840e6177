import type { Item } from '../../folio/items.ts';
import type { Inline } from '../../folio/story.ts';
import { adapted, dropped, kept } from '../treatments.ts';
import { planBoxes } from '../office/planBoxes.ts';
import { isCounted } from '../office/laidPages.ts';
import { OPEN_DOCUMENT } from '../office/placedFormat.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import { chainsOf, wholeParagraphs } from './laidOut.ts';
import type { OdtSettings } from './settings.ts';
import type { Plan } from '../treatments.ts';
import type { OdtCode } from './planOdt.ts';

/** Plans what stands on pages of an open text document, but for what is said of words. */
export function planPlaces(job: WriteJob<OdtSettings>): Plan<OdtCode> {
  const { folio, composition, settings } = job;
  const scope = scopeOf(folio, composition, settings, true);
  let whole: ReadonlySet<string> | null = null;
  const isWhole = (id: string): boolean => (whole ??= wholeParagraphs(folio, chainsOf(job, scope))).has(id);
  const isLive = ({ field, target }: Inline & { type: 'field' }): boolean => {
    if (settings.fields !== 'live') return false;
    if (field === 'pageNumber') return scope.pages.every(isCounted);
    return field === 'title' || (target !== undefined && isWhole(target));
  };
  return planBoxes(job, {
    ...OPEN_DOCUMENT,
    fields: true,
    more: ({ subject, spread, node }) => {
      if (subject.kind === 'field') return node?.type === 'field' && isLive(node) ? kept : adapted('field.words');
      if (subject.kind !== 'page' || subject.aspect !== 'background') return null;
      return isPoor(spread!.pages.find((p) => p.id === subject.id)!.background) ? adapted('gradient.two') : null;
    },
    unheld: (item, aspect) =>
      item.kind === 'field' && item.control.type === 'signature' && (aspect === 'field' || aspect === 'place')
        ? dropped('field.signature')
        : null,
    look: ({ fill }) => (isPoor(fill) ? adapted('gradient.two') : kept),
  });
}

/** Whether a gradient is told by its first and its last colour alone. */
const isPoor = (fill: Item['fill']): boolean =>
  fill.type === 'gradient' && (fill.gradient.stops.length > 2 || fill.gradient.stops.some((s) => s.opacity < 1));
