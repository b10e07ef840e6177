import type { TextPart } from '../../folio/edition.ts';
import type { Code } from '../../language/codes.ts';
import type { ExchangeJob } from '../../language/exchange.ts';
import { writtenState } from '../../language/states.ts';
import type { CutUnit } from '../../language/unit.ts';
import { exchangeWriter } from '../exchange/exchangeWriter.ts';
import { placeOf, TOOL } from '../exchange/exchangeFormat.ts';
import type { ExchangeFormat } from '../exchange/exchangeFormat.ts';
import { nested } from '../exchange/nesting.ts';
import type { Nested } from '../exchange/nesting.ts';
import { el, words } from '../assets/xml.ts';
import type { Xml } from '../assets/xml.ts';

const NAMESPACES = {
  xmlns: 'urn:oasis:names:tc:xliff:document:2.0',
  'xmlns:mda': 'urn:oasis:names:tc:xliff:metadata:2.0',
  'xmlns:slr': 'urn:oasis:names:tc:xliff:sizerestriction:2.0',
};

/** XLIFF 2.1 (OASIS standard, 13 February 2018), with its modules for metadata (5.5) and for restrictions of size (5.8). */
const xliff21: ExchangeFormat = {
  id: 'xliff-2.1',
  label: 'XLIFF 2.1',
  about: 'For agencies with newer tools: a paragraph stays one unit, so its sentences can be joined and parted.',
  extension: '.xlf',
  mediaType: 'application/xliff+xml',
  write(job) {
    const { document, source, target, units } = job;
    const file = el(
      'file',
      { id: 'f1', original: document.id },
      el('skeleton', { href: `${document.id}.efolio` }),
      el(
        'mda:metadata',
        {},
        el(
          'mda:metaGroup',
          { category: 'made' },
          meta('tool', TOOL.name),
          meta('version', TOOL.version),
          meta('time', job.clock().toISOString()),
        ),
      ),
      el('slr:profiles', { generalProfile: 'xliff:codepoints' }),
      el('notes', {}, el('note', { id: 'title', category: 'document' }, words(document.title))),
      units.map((u) => unitOf(job, u)),
    );
    return `<?xml version="1.0" encoding="UTF-8"?>\n${el('xliff', { ...NAMESPACES, version: '2.1', srcLang: source, trgLang: target }, file)}\n`;
  },
};

const meta = (type: string, value: string): Xml => el('mda:meta', { type }, words(value));

function unitOf(job: ExchangeJob, unit: CutUnit): Xml {
  const first = job.translated.get(unit.segments[0]!.id);
  const place = placeOf(unit);
  const comments = unit.segments.flatMap((s) => job.translated.get(s.id)?.comments ?? []);
  const notes = [
    place && el('note', { id: 'place', category: 'place' }, words(place)),
    ...comments.map((c, i) => el('note', { id: `n${i + 1}` }, words(c))),
  ].filter((n): n is Xml => !!n);
  const codes = new CodesOfUnit(unit);
  const segments = unit.segments.flatMap((segment, i): Xml[] => {
    const has = job.translated.get(segment.id);
    const { xliff2 } = writtenState(has?.state ?? 'initial');
    const target = has?.target ?? (job.copySource ? segment.source : null);
    // Every segment that is more than initial has a target (4.3.1.30).
    const made = el(
      'segment',
      { id: `s${i + 1}`, state: target ? xliff2 : 'initial' },
      el('source', { 'xml:space': 'preserve' }, codes.write(segment.source)),
      target && el('target', { 'xml:space': 'preserve' }, codes.writeTarget(target)),
    );
    return [...(i === 0 && unit.before ? [glue(unit.before, codes)] : []), made, ...(segment.glue ? [glue(segment.glue, codes)] : [])];
  });
  return el(
    'unit',
    {
      id: unit.id,
      name: unit.style,
      translate: first?.state === 'locked' ? 'no' : undefined,
      'slr:sizeRestriction': unit.room === undefined ? undefined : String(unit.room),
    },
    notes.length > 0 && el('notes', {}, notes),
    segments,
  );
}

const glue = (parts: readonly TextPart[], codes: CodesOfUnit): Xml =>
  el('ignorable', {}, el('source', { 'xml:space': 'preserve' }, codes.write(parts)));

/** Codes of one unit: their ids are theirs alone in all of its sources (4.3.1.18), and the same in its targets. */
class CodesOfUnit {
  private wraps = 0;
  /** Wrap marks of the source that was written last. */
  private inSource: string[] = [];

  constructor(private readonly unit: CutUnit) {}

  write(parts: readonly TextPart[]): Xml[] {
    this.inSource = [];
    return nested(parts).map((n) =>
      this.node(n, () => {
        this.inSource.push(`w${++this.wraps}`);
        return `w${this.wraps}`;
      }),
    );
  }

  /** In a target, the first wrap mark is the first of its source: both have the same id. */
  writeTarget(parts: readonly TextPart[]): Xml[] {
    const free = [...this.inSource];
    return nested(parts).map((n) => this.node(n, () => free.shift() ?? `w${++this.wraps}`));
  }

  private node(node: Nested, wrap: () => string): Xml {
    switch (node.type) {
      case 'text':
        return words(node.text);
      case 'wrap':
        return el('ph', { id: wrap(), type: 'fmt', subType: 'xlf:lb', equiv: ' ', disp: 'line ends here' });
      case 'code': {
        const code = this.code(node.code);
        return el('ph', {
          id: String(node.code),
          canDelete: 'no',
          canCopy: 'no',
          ...kindOf(code),
          equiv: code?.shows || undefined,
          disp: code?.shows || code?.says,
        });
      }
      case 'pair': {
        const code = this.code(node.code);
        return el(
          'pc',
          {
            id: String(node.code),
            canDelete: 'no',
            canCopy: 'no',
            canOverlap: 'no',
            ...kindOf(code),
            dispStart: code?.says,
            dispEnd: code && `end: ${code.says}`,
          },
          node.inside.map((n) => this.node(n, wrap)),
        );
      }
      case 'start': {
        const code = this.code(node.code);
        return el('sc', { id: String(node.code), canDelete: 'no', canCopy: 'no', ...kindOf(code), disp: code?.says });
      }
      case 'end':
        return el('ec', { startRef: String(node.code), canDelete: 'no', canCopy: 'no' });
    }
  }

  private code(n: number): Code | undefined {
    return this.unit.codes.find((c) => c.n === n);
  }
}

/** The kinds of codes that the standard names (4.3.1.40, and 4.3.1.36 for their subtypes). */
function kindOf(code: Code | undefined): { type: string; subType?: string } {
  if (code?.kind === 'link') return { type: 'link' };
  if (code?.kind === 'anchor') return { type: 'image' };
  if (code?.kind !== 'look') return { type: 'other' };
  const subType = code.says === 'bold' ? 'xlf:b' : code.says === 'italic' ? 'xlf:i' : code.says === 'underlined' ? 'xlf:u' : undefined;
  return { type: 'fmt', ...(subType && { subType }) };
}

export const xliff21Writer = exchangeWriter(xliff21);
