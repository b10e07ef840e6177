import { SaxesParser } from 'saxes';

/** Where an element stands in a text of XML, in its characters. */
export interface RawPlace {
  /** Its name as the file writes it. */
  name: string;
  start: number;
  /** Between its tags; both the same where it is closed at once. */
  innerStart: number;
  innerEnd: number;
  end: number;
}

/** Where every element stands, by its path of indexes from the root down, as the reader of OpenDocument counts them. */
export function rawPlaces(xml: string): Map<string, RawPlace> {
  const parser = new SaxesParser({ xmlns: false, position: true });
  const places = new Map<string, RawPlace>();
  const open: { path: string; place: RawPlace; children: number }[] = [];
  parser.on('opentag', (tag) => {
    const above = open[open.length - 1];
    const path = above ? `${above.path}/${above.children++}` : '';
    // No tag holds the sign that begins one (XML 1.0, 3.1).
    const start = xml.lastIndexOf('<', parser.position - 1);
    const place: RawPlace = { name: tag.name, start, innerStart: parser.position, innerEnd: parser.position, end: parser.position };
    places.set(path, place);
    open.push({ path, place, children: 0 });
  });
  parser.on('closetag', (tag) => {
    const { place } = open.pop()!;
    if (tag.isSelfClosing) return;
    place.innerEnd = xml.lastIndexOf('<', parser.position - 1);
    place.end = parser.position;
  });
  parser.write(xml).close();
  return places;
}

/** A text with parts of it replaced; parts inside others that are replaced go with them. */
export function spliced(xml: string, changes: readonly { from: number; to: number; text: string }[]): string {
  let out = '';
  let at = 0;
  for (const { from, to, text } of [...changes].sort((a, b) => a.from - b.from || b.to - a.to)) {
    if (from < at) continue;
    out += xml.slice(at, from) + text;
    at = to;
  }
  return out + xml.slice(at);
}

/** The tag that begins an element, also where it ended it at once. */
export const opening = (tag: string): string => (tag.endsWith('/>') ? `${tag.slice(0, -2).trimEnd()}>` : tag);
