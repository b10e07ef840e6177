import type { Entry } from '../office/contents.ts';
import { twips } from '../ooxml/lengths.ts';
import type { Xml } from '../assets/xml.ts';
import { all, el, words } from '../assets/xml.ts';
import { field, run } from './inlineContent.ts';
import type { WordContext } from './wordContext.ts';

/** Styles of the entries, by the names that programs know (`toc 1` …): indented level by level, page numbers at the right edge. */
export function contentsStyles(depth: number, measure: number): Xml[] {
  return Array.from({ length: depth }, (_, i) =>
    el(
      'w:style',
      { 'w:type': 'paragraph', 'w:styleId': `TOC${i + 1}` },
      el('w:name', { 'w:val': `toc ${i + 1}` }),
      el('w:basedOn', { 'w:val': 'Normal' }),
      el('w:uiPriority', { 'w:val': 39 }),
      el(
        'w:pPr',
        {},
        el('w:tabs', {}, el('w:tab', { 'w:val': 'right', 'w:leader': 'dot', 'w:pos': twips(measure) })),
        el('w:ind', { 'w:left': twips(12 * i), 'w:right': twips(24) }),
      ),
    ),
  );
}

/**
 * A table of contents that can be made anew (ISO/IEC 29500-1, 17.16.5.68), filled with what it lists already: it is there before
 * anything is worked out.
 */
export function contentsField(entries: readonly Entry[], depth: number, c: WordContext): Xml {
  const mark = (type: string, more: Record<string, string> = {}): Xml => run(null, el('w:fldChar', { 'w:fldCharType': type, ...more }));
  const begin = all(
    mark('begin'),
    run(null, el('w:instrText', { 'xml:space': 'preserve' }, words(` TOC \\o "1-${depth}" \\h \\z \\u `))),
    mark('separate'),
  );
  const lines = entries.map((e, i) => {
    const bookmark = c.bookmarks.name('p', e.paragraph);
    const link = el(
      'w:hyperlink',
      { 'w:anchor': bookmark, 'w:history': '1' },
      run(null, el('w:t', { 'xml:space': 'preserve' }, words(e.text))),
      run(null, el('w:tab')),
      field(`PAGEREF ${bookmark} \\h`, null, e.printed ?? ''),
    );
    return el('w:p', {}, el('w:pPr', {}, el('w:pStyle', { 'w:val': `TOC${e.level}` })), i === 0 && begin, link);
  });
  return el(
    'w:sdt',
    {},
    el('w:sdtPr', {}, el('w:docPartObj', {}, el('w:docPartGallery', { 'w:val': 'Table of Contents' }), el('w:docPartUnique'))),
    el('w:sdtContent', {}, lines, el('w:p', {}, lines.length ? null : begin, mark('end'))),
  );
}
