import type { TextPart } from '../../folio/edition.ts';
import type { Code } from '../../language/codes.ts';

import type { MemoryUnit } from '../../language/memory.ts';
import { exchangeWriter } from '../exchange/exchangeWriter.ts';
import { placeOf, TOOL } from '../exchange/exchangeFormat.ts';
import type { ExchangeFormat } from '../exchange/exchangeFormat.ts';
import { el, words } from '../assets/xml.ts';
import type { Xml } from '../assets/xml.ts';

/** Translation Memory eXchange 1.4b (LISA OSCAR, 26 April 2005). */
const tmx: ExchangeFormat = {
  id: 'tmx',
  label: 'TMX',
  about: 'For taking what is translated into another memory; what has no translation yet is not in it, unless targets are copies.',
  extension: '.tmx',
  mediaType: 'application/x-tmx+xml',
  write({ document, source, target, units, translated, copySource, clock }) {
    const tus = units.flatMap((unit) =>
      unit.segments.flatMap((segment) => {
        const has = translated.get(segment.id);
        const said = has?.target ?? (copySource ? segment.source : null);
        if (!said) return [];
        const place = placeOf(unit);
        return tu(
          { tuid: segment.id },
          [
            el('prop', { type: 'x-state' }, words(has?.state ?? 'initial')),
            el('prop', { type: 'x-document' }, words(document.id)),
            place ? el('note', {}, words(place)) : null,
          ],
          [
            [source, segment.source],
            [target, said],
          ],
          unit.codes,
        );
      }),
    );
    return tmxFile(source, tus, clock(), units.some((u) => u.segments.length > 1) ? 'sentence' : 'paragraph');
  },
};

/** A memory as a file. */
export function writeMemory(memory: Iterable<MemoryUnit>, source: string, target: string, now: Date): string {
  const tus = [...memory].map((unit) =>
    tu(
      { creationid: unit.by, creationdate: unit.at === undefined ? undefined : stamp(new Date(unit.at)) },
      [
        unit.before === undefined ? null : el('prop', { type: 'x-before' }, words(unit.before)),
        unit.after === undefined ? null : el('prop', { type: 'x-after' }, words(unit.after)),
        unit.from === undefined ? null : el('prop', { type: 'x-from' }, words(unit.from)),
      ],
      [
        [source, unit.source],
        [target, unit.target],
      ],
      [],
    ),
  );
  return tmxFile(source, tus, now, 'block');
}

/** Times as the standard writes them: ISO 8601 without its signs. */
const stamp = (at: Date): string => at.toISOString().replace(/[-:]|\.\d+/g, '');

function tmxFile(source: string, tus: readonly Xml[], now: Date, segtype: 'block' | 'paragraph' | 'sentence'): string {
  const header = el('header', {
    creationtool: TOOL.id,
    creationtoolversion: TOOL.version,
    segtype,
    'o-tmf': TOOL.id,
    adminlang: 'en',
    srclang: source,
    datatype: 'xml',
    creationdate: stamp(now),
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n${el('tmx', { version: '1.4' }, header, el('body', {}, tus))}\n`;
}

const tu = (
  attributes: Record<string, string | undefined>,
  about: (Xml | null)[],
  texts: [string, readonly TextPart[]][],
  codes: readonly Code[],
): Xml =>
  el(
    'tu',
    attributes,
    about,
    texts.map(([language, parts]) => el('tuv', { 'xml:lang': language }, el('seg', {}, inline(parts, codes)))),
  );

/** Codes as the standard has them; `x` says which of one language is which of another. What they stand for is their content. */
function inline(parts: readonly TextPart[], codes: readonly Code[]): Xml[] {
  const called = (n: number): string => codes.find((c) => c.n === n)?.shows ?? '';
  const typeOf = (n: number): string | undefined => {
    const code = codes.find((c) => c.n === n);
    return code?.kind === 'look' && /^(bold|italic|underlined)$/.test(code.says)
      ? code.says.replace('underlined', 'ulined')
      : code?.kind === 'link'
        ? 'link'
        : undefined;
  };
  const open: { code: number; i: number }[] = [];
  let i = 0;
  return parts.map((p): Xml => {
    switch (p.type) {
      case 'text':
        return words(p.text);
      case 'wrap':
        return el('ph', { type: 'lb' });
      case 'code':
        return el('ph', { x: p.code, type: typeOf(p.code) }, words(called(p.code)));
      case 'open':
        open.push({ code: p.code, i: ++i });
        return el('bpt', { i, x: p.code, type: typeOf(p.code) });
      case 'close': {
        const at = open.map((o) => o.code).lastIndexOf(p.code);
        // An end without a beginning stands by itself.
        if (at < 0) return el('it', { pos: 'end', x: p.code });
        return el('ept', { i: open.splice(at, 1)[0]!.i });
      }
    }
  });
}

export const tmxWriter = exchangeWriter(tmx);
