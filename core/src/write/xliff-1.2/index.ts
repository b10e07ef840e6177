import type { Code } from '../../language/codes.ts';
import type { ExchangeJob, Outbound } from '../../language/exchange.ts';
import { writtenState } from '../../language/states.ts';
import type { CutUnit } from '../../language/unit.ts';
import type { TextPart } from '../../folio/edition.ts';
import { exchangeWriter } from '../exchange/exchangeWriter.ts';
import { placeOf, TOOL } from '../exchange/exchangeFormat.ts';
import type { ExchangeFormat } from '../exchange/exchangeFormat.ts';
import { nested } from '../exchange/nesting.ts';
import type { Nested } from '../exchange/nesting.ts';
import { el, words } from '../assets/xml.ts';
import type { Xml } from '../assets/xml.ts';

const NAMESPACE = 'urn:oasis:names:tc:xliff:document:1.2';

/** XLIFF 1.2 (OASIS standard, 1 February 2008). */
const xliff12: ExchangeFormat = {
  id: 'xliff-1.2',
  label: 'XLIFF 1.2',
  about: 'For agencies and translators with tools of their own: nearly all of them read it.',
  extension: '.xlf',
  mediaType: 'application/x-xliff+xml',
  write(job) {
    const { document, source, target, units } = job;
    const header = el(
      'header',
      {},
      el('skl', {}, el('external-file', { href: `${document.id}.efolio` })),
      el('note', {}, words(document.title)),
      el('tool', { 'tool-id': TOOL.id, 'tool-name': TOOL.name, 'tool-version': TOOL.version }),
    );
    const body = el(
      'body',
      {},
      units.map((unit) => {
        const transUnits = unit.segments.map((s) => transUnit(job, unit, s));
        return unit.segments.length === 1 ? transUnits[0]! : el('group', { id: unit.id, restype: 'x-paragraph' }, transUnits);
      }),
    );
    const file = el(
      'file',
      {
        original: document.id,
        'source-language': source,
        'target-language': target,
        datatype: 'x-layout',
        'tool-id': TOOL.id,
        date: job.clock().toISOString(),
      },
      header,
      body,
    );
    return `<?xml version="1.0" encoding="UTF-8"?>\n${el('xliff', { version: '1.2', xmlns: NAMESPACE }, file)}\n`;
  },
};

function transUnit(job: ExchangeJob, unit: CutUnit, segment: CutUnit['segments'][number]): Xml {
  const has = job.translated.get(segment.id);
  const { xliff12: state, approved, translate } = writtenState(has?.state ?? 'initial');
  const target = has?.target ?? (job.copySource ? segment.source : null);
  const room = unit.segments.length === 1 ? unit.room : undefined;
  return el(
    'trans-unit',
    {
      id: segment.id,
      'xml:space': 'preserve',
      approved: approved === 'yes' ? 'yes' : undefined,
      translate: translate === 'no' ? 'no' : undefined,
      maxwidth: room,
      'size-unit': room === undefined ? undefined : 'char',
    },
    el('source', {}, inline(segment.source, unit)),
    target && el('target', { state, 'state-qualifier': qualifier(has) }, inline(target, unit)),
    el(
      'context-group',
      { purpose: 'location' },
      el('context', { 'context-type': 'x-document' }, words(job.document.title)),
      unit.pages.map((p) => el('context', { 'context-type': 'x-page' }, words(String(p)))),
      unit.style !== undefined && el('context', { 'context-type': 'x-style' }, words(unit.style)),
    ),
    placeOf(unit) ? el('note', { from: 'designer' }, words(placeOf(unit))) : null,
    (has?.comments ?? []).map((c) => el('note', {}, words(c))),
  );
}

/** Where a target came from (section 2.3, `state-qualifier`). */
const qualifier = (has: Outbound | undefined): string | undefined =>
  has?.percent === undefined ? undefined : has.percent === 100 ? 'exact-match' : 'fuzzy-match';

function inline(parts: readonly TextPart[], unit: CutUnit): Xml[] {
  let wraps = 0;
  const write = (node: Nested): Xml => {
    switch (node.type) {
      case 'text':
        return words(node.text);
      case 'wrap':
        return el('x', { id: `w${++wraps}`, ctype: 'lb', 'equiv-text': ' ' });
      case 'code': {
        const code = unit.codes.find((c) => c.n === node.code);
        return el('x', { id: String(node.code), ctype: ctypeOf(code), 'equiv-text': code?.shows || code?.says });
      }
      case 'pair':
        return el('g', { id: String(node.code), ctype: ctypeOf(unit.codes.find((c) => c.n === node.code)) }, node.inside.map(write));
      case 'start':
        return el('bpt', { id: `${node.code}`, rid: String(node.code), ctype: ctypeOf(unit.codes.find((c) => c.n === node.code)) });
      case 'end':
        return el('ept', { id: `${node.code}`, rid: String(node.code) });
    }
  };
  return nested(parts).map(write);
}

/** The kinds of codes that the standard names (section 2.3, `ctype`); others begin with `x-`. */
function ctypeOf(code: Code | undefined): string {
  if (code?.kind === 'link') return 'link';
  if (code?.kind === 'anchor') return 'image';
  if (code?.kind === 'look')
    return code.says === 'bold' ? 'bold' : code.says === 'italic' ? 'italic' : code.says === 'underlined' ? 'underlined' : 'x-look';
  return `x-${code?.kind ?? 'code'}`;
}

export const xliff12Writer = exchangeWriter(xliff12);
