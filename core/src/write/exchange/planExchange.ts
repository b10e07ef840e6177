import type { Outgoing } from '../../language/goesOut.ts';
import type { Treatment } from '../../ledger/entry.ts';
import type { WriteJob } from '../writer.ts';
import { excluded, kept } from '../treatments.ts';
import type { ExchangeSettings } from './exchangeSettings.ts';
import type { Plan } from '../treatments.ts';

export const EXCHANGE_SENTENCES = {
  kept: 'It is in the file.',
  'exchange.code': 'It stands in its text as a code that translators can move.',
  'exchange.stays': 'It stays in the document: translators get texts.',
  'exchange.chosen': 'It stays here, as chosen ({because}).',
  'exchange.noText': 'There is no text of it.',
  'exchange.otherEdition': 'It is another language than this file’s.',
};
export type ExchangeCode = keyof typeof EXCHANGE_SENTENCES;

/** Plans every subject for a file of texts: texts that go out are kept, what stands in them is a code, all else stays in the document. */
export function planExchange({ folio, settings }: WriteJob<ExchangeSettings>, out: Outgoing): Plan<ExchangeCode> {
  const going = new Set(out.units.map((u) => u.id));
  const because = new Map(out.stays.map((s) => [s.unit.id, s.because as string]));
  const codes = new Set(out.units.flatMap((u) => u.codes.map((c) => c.signature)));
  const text = (id: string): Treatment<ExchangeCode> =>
    going.has(id) ? kept : because.has(id) ? excluded('exchange.chosen', { because: because.get(id)! }) : excluded('exchange.noText');
  const code = (signature: string, paragraph: string | undefined): Treatment<ExchangeCode> =>
    codes.has(signature) && paragraph !== undefined && going.has(paragraph)
      ? { outcome: 'kept', code: 'exchange.code' }
      : excluded('exchange.stays');
  return ({ subject, paragraph }) => {
    const { kind, id, aspect } = subject;
    switch (kind) {
      case 'document':
        return aspect === 'title'
          ? folio.head.metadata.title
            ? text('meta:title')
            : excluded('exchange.noText')
          : aspect === 'language'
            ? kept
            : excluded('exchange.stays');
      case 'edition':
        return id === settings.target ? kept : excluded('exchange.otherEdition');
      case 'paragraph':
        return aspect === 'text' ? text(id) : excluded('exchange.stays');
      case 'item':
      case 'masterItem':
        return aspect === 'alt' ? text(`alt:${id.slice(id.lastIndexOf('/') + 1)}`) : excluded('exchange.stays');
      case 'note':
      case 'field':
      case 'anchor':
      case 'ruby':
        return code(`${kind}:${id}`, paragraph);
      case 'link':
        return code(`link:${id.slice(id.indexOf('/') + 1)}`, paragraph);
      default:
        return excluded('exchange.stays');
    }
  };
}
