import { readable } from '../../language/parts.ts';
import { writtenState } from '../../language/states.ts';
import { exchangeWriter } from '../exchange/exchangeWriter.ts';
import { placeOf, TOOL } from '../exchange/exchangeFormat.ts';
import type { ExchangeFormat } from '../exchange/exchangeFormat.ts';

/** Portable objects of GNU gettext (manual of gettext 0.21, “The Format of PO Files”). */
const portableObjects: ExchangeFormat = {
  id: 'po',
  label: 'PO',
  about: 'For software translators, whose editors and web services know gettext.',
  extension: '.po',
  mediaType: 'text/x-gettext-translation',
  async write({ document, source, target, units, translated, copySource, clock }) {
    const { po } = await import('gettext-parser');
    const translations: Record<string, Record<string, object>> = { '': { '': { msgid: '', msgstr: [''] } } };
    for (const unit of units)
      for (const segment of unit.segments) {
        const has = translated.get(segment.id);
        const said = has?.target ?? (copySource ? segment.source : null);
        const state = has?.state ?? 'initial';
        const msgid = readable(segment.source);
        // The name of a segment is its context: two that say the same are two.
        translations[segment.id] = {
          [msgid]: {
            msgctxt: segment.id,
            msgid,
            msgstr: [said ? readable(said) : ''],
            comments: {
              extracted: [placeOf(unit), `state: ${state}`, ...(has?.comments ?? []).map((c) => `comment: ${c.replace(/\s+/g, ' ')}`)]
                .filter(Boolean)
                .join('\n'),
              reference: unit.pages.map((p) => `page:${p}`).join(' '),
              ...(said && writtenState(state).fuzzy && { flag: 'fuzzy' }),
            },
          },
        };
      }
    const headers = {
      'Project-Id-Version': document.id,
      'PO-Revision-Date': clock().toISOString().slice(0, 16).replace('T', ' ') + '+0000',
      Language: target.replace('-', '_'),
      'MIME-Version': '1.0',
      'Content-Type': 'text/plain; charset=UTF-8',
      'Content-Transfer-Encoding': '8bit',
      'X-Generator': TOOL.name,
      'X-Source-Language': source,
      'X-Target-Language': target,
    };
    return new Uint8Array(po.compile({ charset: 'utf-8', headers, translations } as Parameters<typeof po.compile>[0], { foldLength: 0 }));
  },
};

export const poWriter = exchangeWriter(portableObjects);
