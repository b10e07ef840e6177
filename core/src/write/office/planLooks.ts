import type { Effects } from '../../folio/appearance.ts';
import type { Group, Item } from '../../folio/items.ts';
import type { Treatment } from '../../ledger/entry.ts';
import { adapted, dropped, excluded } from '../treatments.ts';
import { isShownAsOne } from '../pages/paintedPage.ts';
import { isDrawnWhole, shareEffects } from './drawnLooks.ts';
import type { LookSettings } from './drawnLooks.ts';
import type { PlacedFormat } from './placedFormat.ts';
import type { FixedPageCode } from '../pages/planFixedPage.ts';
import type { OfficeCode } from './officeSentences.ts';

/** What becomes of a group’s looks: its members stand by themselves, its effects are pictures. */
export function treatGroup(group: Group, aspect: string, settings: LookSettings): Treatment<FixedPageCode | OfficeCode> | null {
  if (aspect === 'look' && isShownAsOne(group)) return adapted('group.apart');
  if (!aspect.startsWith('effect.')) return null;
  if (settings.effects === 'none') return excluded('effects.off');
  // What fades a whole fades none of its parts.
  return settings.pictures === 'none' || aspect === 'effect.feather' ? dropped('effect.apart') : adapted('effect.picture');
}

/** What becomes of an item’s effects, and of how its colours mix with those below; null where it is as designed. */
export function treatFormatting(
  item: Exclude<Item, { kind: 'group' }>,
  aspect: string,
  settings: LookSettings,
  format: PlacedFormat,
): Treatment<FixedPageCode | OfficeCode> | null {
  const isWhole = isDrawnWhole(item, settings, format);
  if (aspect === 'look' && item.blend !== 'normal') return adapted(isWhole && settings.blends === 'drawn' ? 'blend.drawn' : 'blend.normal');
  if (!aspect.startsWith('effect.')) return null;
  if (settings.effects === 'none') return excluded('effects.off');
  if (isWhole) return adapted('effect.whole');
  const effect = aspect.slice('effect.'.length) as keyof Effects;
  const { told, drawn } = shareEffects(item, settings, format);
  if (effect in told) return null;
  return effect in drawn && effect !== 'feather' ? adapted('effect.picture') : dropped('effect.none');
}
