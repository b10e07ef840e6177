import type { Head } from '../../folio/head.ts';
import type { LoadedFolio } from '../reader.ts';
import type { Names } from './names.ts';
import { firstFamily } from './textProperties.ts';
import { childOf, childrenOf } from './xmlTree.ts';
import type { XmlElement } from './xmlTree.ts';

/** Fonts that travel in the package (svg:font-face-uri), as files of the document. */
export function readFonts(
  roots: readonly (XmlElement | null)[],
  sources: LoadedFolio['files'],
  names: Names,
): { fonts: Head['fonts']; files: LoadedFolio['files'] } {
  const fonts: Head['fonts'] = {};
  const files: LoadedFolio['files'] = new Map();
  const seen = new Set<string>();
  for (const root of roots)
    for (const face of childrenOf(
      childOf(root ?? undefined, 'office:font-face-decls') ?? { name: '', attributes: {}, children: [], path: '' },
    )) {
      const family = firstFamily(face.attributes['svg:font-family'] ?? face.attributes['style:name'] ?? '');
      const source = childOf(face, 'svg:font-face-src');
      for (const { attributes: a } of source ? childrenOf(source, 'svg:font-face-uri') : []) {
        const path = (a['xlink:href'] ?? '').replace(/^\.\//, '');
        const file = sources.get(path);
        if (!file || !family || seen.has(file.sha256)) continue;
        seen.add(file.sha256);
        const id = names.free('font', family);
        const name = `fonts/${id}.${/\.otf$/i.test(path) ? 'otf' : 'ttf'}`;
        const weight = Number(a['svg:font-weight'] ?? (a['loext:font-weight'] === 'bold' ? 700 : 400));
        fonts[id] = {
          id,
          family,
          weight: weight >= 1 && weight <= 1000 ? Math.round(weight) : 400,
          style: [a['svg:font-style'], a['loext:font-style']].includes('italic') ? 'italic' : 'normal',
          file: name,
          sha256: file.sha256,
        };
        files.set(name, file);
      }
    }
  return { fonts, files };
}
