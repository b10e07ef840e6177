import { produce } from 'immer';
import type { Folio, Inline } from '../../../src/index.ts';
import { tinyFolio } from '../../support/tinyFolio.ts';

export const bold = (text: string): Inline => ({ type: 'span', text, overrides: { fontWeight: 700 } });
export const plain = (text: string, more: Partial<Inline & { type: 'span' }> = {}): Inline => ({ type: 'span', text, ...more });
export const WRAP: Inline = { type: 'softReturn' };
export const TAB: Inline = { type: 'tab' };

/** A document of paragraphs `p1`, `p2` … with a link `site` and a note in wait. */
export function codedFolio(paragraphs: (string | Inline[])[], more: (draft: Folio) => void = () => undefined): Folio {
  return produce(tinyFolio(paragraphs), (draft) => {
    draft.stories['t']!.links['site'] = { id: 'site', destination: { to: 'address', href: 'https://marrowby.example/', window: 'same' } };
    more(draft as Folio);
  });
}
