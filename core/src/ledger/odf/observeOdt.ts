import { SIGNATURE_CELLS } from '../findings.ts';
import type { ExpectedFlow } from '../flow/expectFlow.ts';
import type { ObservedFlow } from '../flow/observedFlow.ts';
import type { Folio } from '../../folio/folio.ts';
import { child } from '../../packages/officeParts.ts';
import type { Outside } from '../office/wordReader.ts';
import { openPackage } from './openPackage.ts';
import type { OpenPackage } from './openPackage.ts';
import { OdfStyles } from './odfStyles.ts';
import { OdfText } from './odfText.ts';

/** Reads a text document of OpenDocument back from its bytes alone. */
export async function observeOdt(bytes: Uint8Array, outside: Outside): Promise<ObservedFlow> {
  const pack = await openPackage(bytes);
  const reader = new OdfText(new OdfStyles(pack.styles, pack.content), 'content.xml');
  const body = child(child(pack.content, 'office:body'), 'office:text');
  if (body) reader.blocks(body);
  return flowOfText(pack, reader, outside);
}

/** What a text says that was read: its links and pictures lead somewhere. */
export async function flowOfText({ files, problems, meta }: OpenPackage, reader: OdfText, outside: Outside): Promise<ObservedFlow> {
  reader.settle();
  for (const { links } of reader.out.blocks)
    for (const { href } of links)
      if (href.startsWith('#') && !reader.places.has(href.slice(1)))
        problems.push({ file: 'content.xml', says: `a link leads to “${href.slice(1)}”, which is not there` });
  for (const name of reader.asked)
    if (!reader.places.has(name)) problems.push({ file: 'content.xml', says: `a reference is to “${name}”, which is not there` });
  const figures: ObservedFlow['figures'] = [];
  for (const { hrefs, alt, after } of reader.out.figures) {
    let picture: Uint8Array | undefined;
    for (const href of hrefs) {
      const bytesOf = href.startsWith('../') ? await outside.beside(href.slice(3)) : files.get(href);
      if (!bytesOf) problems.push({ file: 'content.xml', says: `a picture leads to ${href}, which is not there` });
      else picture = (await outside.pictures.signature(bytesOf, SIGNATURE_CELLS).catch(() => undefined)) ?? picture;
    }
    figures.push({ alt, caption: '', picture, after });
  }
  const about = child(meta, 'office:meta');
  const { blocks, tables, notes, outline } = reader.out;
  return {
    title: child(about, 'dc:title')?.text ?? '',
    language: child(about, 'dc:language')?.text ?? '',
    outline,
    pages: [],
    blocks,
    figures,
    tables,
    notes,
    embedded: [],
    problems,
  };
}

/** Rows alone head tables of OpenDocument (9.1.6, 9.1.7). */
export function headedByRows(expected: ExpectedFlow, folio: Folio): ExpectedFlow {
  const rows = new Map<string, boolean>();
  for (const story of Object.values(folio.stories))
    for (const b of Object.values(story.blocks))
      if (b.kind === 'table') for (const [id, cell] of Object.entries(b.cells)) rows.set(id, cell.row < b.headerRows);
  return {
    ...expected,
    tables: expected.tables.map((t) => ({
      ...t,
      rows: t.rows.map((r) => r.map((c) => ({ ...c, heading: rows.get(c.cell) ?? c.heading }))),
    })),
  };
}
