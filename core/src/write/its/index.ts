import type { TextPart } from '../../folio/edition.ts';
import type { CutUnit } from '../../language/unit.ts';
import { exchangeWriter } from '../exchange/exchangeWriter.ts';
import { placeOf } from '../exchange/exchangeFormat.ts';
import type { ExchangeFormat } from '../exchange/exchangeFormat.ts';
import { nested } from '../exchange/nesting.ts';
import type { Nested } from '../exchange/nesting.ts';
import { el, words } from '../assets/xml.ts';
import type { Xml } from '../assets/xml.ts';

const ITS = 'http://www.w3.org/2005/11/its';

/** The rules that say what of the file is to be translated (ITS 2.0, W3C Recommendation of 29 October 2013, 8.1 to 8.3 and 8.18). */
const rules = (): Xml =>
  el(
    'its:rules',
    { version: '2.0' },
    el('its:translateRule', { selector: '/texts', translate: 'no' }),
    el('its:translateRule', { selector: '/texts/text/target', translate: 'yes' }),
    el('its:translateRule', { selector: "/texts/text[@state='locked']/target", translate: 'no' }),
    el('its:withinTextRule', { selector: '//pair | //code | //wrap', withinText: 'yes' }),
    el('its:locNoteRule', { selector: '/texts/text/target', locNotePointer: '../note', locNoteType: 'description' }),
    el('its:storageSizeRule', { selector: '/texts/text[@room]/target', storageSizePointer: '../@room', storageEncoding: 'UTF-32' }),
  );

const xml: ExchangeFormat = {
  id: 'xml',
  label: 'XML with rules',
  about: 'For tools that take any XML: rules in the file say what is to be translated (ITS 2.0).',
  extension: '.xml',
  mediaType: 'application/xml',
  write({ document, source, target, units, translated, copySource }) {
    const texts = units.flatMap((unit) =>
      unit.segments.map((segment) => {
        const has = translated.get(segment.id);
        const said = has?.target ?? (copySource ? segment.source : null);
        return el(
          'text',
          { id: segment.id, state: has?.state ?? 'initial', room: unit.segments.length === 1 ? unit.room : undefined },
          el('source', { 'xml:lang': source, 'xml:space': 'preserve' }, inline(segment.source, unit)),
          el('target', { 'xml:lang': target, 'xml:space': 'preserve' }, said ? inline(said, unit) : null),
          placeOf(unit) ? el('note', {}, words(placeOf(unit))) : null,
          (has?.comments ?? []).map((c) => el('comment', {}, words(c))),
        );
      }),
    );
    return `<?xml version="1.0" encoding="UTF-8"?>\n${el('texts', { 'xmlns:its': ITS, 'its:version': '2.0', document: document.id, title: document.title, source, target }, rules(), texts)}\n`;
  },
};

function inline(parts: readonly TextPart[], unit: CutUnit): Xml[] {
  const says = (n: number): string | undefined => {
    const code = unit.codes.find((c) => c.n === n);
    return code?.shows || code?.says;
  };
  const write = (node: Nested): Xml => {
    switch (node.type) {
      case 'text':
        return words(node.text);
      case 'wrap':
        return el('wrap');
      case 'code':
        return el('code', { n: node.code, is: says(node.code) });
      case 'pair':
        return el('pair', { n: node.code, is: says(node.code) }, node.inside.map(write));
      case 'start':
      case 'end':
        return el('code', { n: node.code, is: says(node.code), at: node.type });
    }
  };
  return nested(parts).map(write);
}

export const xmlWriter = exchangeWriter(xml);
