import type { Matrix } from '../../folio/geometry.ts';
import type { ObservedFlow } from '../flow/observedFlow.ts';
import { emptyPage } from '../observed.ts';
import type { ObservedPage } from '../observed.ts';
import type { Outside } from '../office/wordReader.ts';
import { flowOfText } from './observeOdt.ts';
import { OdfStyles } from './odfStyles.ts';
import { OdfText } from './odfText.ts';
import { openPackage } from './openPackage.ts';
import { chainsIn, openTextPages } from './openTextPages.ts';
import { PlacedThings } from './placedThings.ts';

/** What a text document of placed boxes says: its words in their order, and what stands where on its pages. */
export interface ObservedLaidOdt {
  flow: ObservedFlow;
  pages: ObservedPage[];
}

const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** Reads a text document of OpenDocument back whose things are anchored to pages, from its bytes alone. */
export async function observeLaidOdt(bytes: Uint8Array, outside: Outside): Promise<ObservedLaidOdt> {
  const pack = await openPackage(bytes);
  const { files, problems, content, styles } = pack;
  const read = openTextPages(content, styles);
  const marks = new Map(read.flatMap((p, i) => p.places.map((name) => [name, i + 1] as const)));
  const chains = chainsIn(read.flatMap((p) => [...p.header, ...p.own]));
  const names = new Set(read.flatMap((p) => [...p.header, ...p.own].map(({ node }) => node.attributes['draw:name'] ?? '')));
  for (const name of chains.keys())
    if (!names.has(name)) problems.push({ file: 'content.xml', says: `a text goes on in “${name}”, which is not there` });
  const things = new PlacedThings(files, outside, problems, (name) => chains.has(name));
  const own = new OdfStyles(styles, content);
  const ofMasters = new OdfStyles(styles, styles);
  const text = new OdfText(own, 'content.xml');
  const pages: ObservedPage[] = [];
  for (const { width, height, header, own: anchored, number } of read) {
    const page = emptyPage(width, height);
    pages.push(page);
    text.number = () => String(number);
    const all = [
      ...header.map((o) => ({ ...o, styles: ofMasters, repeats: true })),
      ...anchored.map((o) => ({ ...o, styles: own, repeats: false })),
    ];
    // Words are compared as they stand in the file; all else as it lies, from back to front.
    for (const { node, styles: theirs, repeats } of all) things.words(node, page, IDENTITY, theirs, text, repeats, String(number));
    for (const { node, link, styles: theirs } of [...all].sort((a, b) => a.depth - b.depth)) {
      const box = await things.looks(node, page, IDENTITY, theirs);
      const at = link?.startsWith('#') ? (marks.get(link.slice(1)) ?? 0) : null;
      if (link !== undefined) page.areas.push({ box, target: at === null ? link : `page:${at}` });
    }
  }
  if (!read.length) problems.push({ file: 'content.xml', says: 'no paragraph begins a page' });
  for (const name of marks.keys()) text.places.add(name);
  return { flow: await flowOfText(pack, text, outside), pages };
}
