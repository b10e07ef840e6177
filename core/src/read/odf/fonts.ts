import { STAND_IN, standInFor } from '../../compose/standIns.ts';
import type { Head } from '../../folio/head.ts';
import type { LoadedFolio } from '../../intake/reader.ts';
import type { PackageFiles } from './packageFiles.ts';
import type { Names } from './names.ts';
import { firstFamily } from './textProperties.ts';
import { childOf, childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** The descriptions of a document's fonts (16.24 style:font-face), in both of its parts. */
export const fontFaces = (roots: readonly (XmlElement | null)[]): XmlElement[] =>
  roots.flatMap((root) => childrenOf(childOf(root ?? undefined, 'office:font-face-decls'), 'style:font-face'));

/** Families by the names that styles use. */
export const familiesByName = (faces: readonly XmlElement[]): Map<string, string> =>
  new Map(faces.map(({ attributes: a }) => [a['style:name'] ?? '', a['svg:font-family'] ?? a['style:name'] ?? '']));

const familyOf = ({ attributes: a }: XmlElement): string => firstFamily(a['svg:font-family'] ?? a['style:name'] ?? '');

/** What stands in for the document's families where they are missing, by the kind that the file says each is of (19.482). */
export function standInsFor(faces: readonly XmlElement[]): Record<string, string> {
  const kinds: Record<string, string> = { swiss: STAND_IN.sans, roman: STAND_IN.serif, modern: STAND_IN.mono };
  const out: Record<string, string> = {};
  for (const face of faces) {
    const family = familyOf(face).toLowerCase();
    const kind =
      face.attributes['style:font-pitch'] === 'fixed' ? STAND_IN.mono : kinds[face.attributes['style:font-family-generic'] ?? ''];
    // A well-known name says more than its kind.
    if (family && kind && standInFor(family, {}) === undefined) out[family] = kind;
  }
  return out;
}

/** Families that styles and texts name and no file of the package is for: the document lists them without one. */
export function fontsWithoutFiles(parts: readonly object[], have: Head['fonts'], names: Names): Head['fonts'] {
  const known = new Set(Object.values(have).map((f) => f.family.toLowerCase()));
  const out: Head['fonts'] = {};
  for (const part of parts)
    for (const [, name] of JSON.stringify(part).matchAll(/"fontFamily":("(?:[^"\\]|\\.)*")/g)) {
      const family = JSON.parse(name!) as string;
      if (known.has(family.toLowerCase())) continue;
      known.add(family.toLowerCase());
      const id = names.free('font', family);
      out[id] = { id, family, weight: 400, style: 'normal' };
    }
  return out;
}

/** Fonts that travel in the package (svg:font-face-uri), as files of the document. */
export async function readFonts(
  faces: readonly XmlElement[],
  sources: PackageFiles,
  names: Names,
): Promise<{ fonts: Head['fonts']; files: LoadedFolio['files'] }> {
  const fonts: Head['fonts'] = {};
  const files: LoadedFolio['files'] = new Map();
  const seen = new Set<string>();
  for (const face of faces) {
    const family = familyOf(face);
    for (const { attributes: a } of childrenOf(childOf(face, 'svg:font-face-src'), 'svg:font-face-uri')) {
      const path = (a['xlink:href'] ?? '').replace(/^\.\//, '');
      const file = await sources.get(path);
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
      files.set(name, { sha256: file.sha256, bytes: file.bytes });
    }
  }
  return { fonts, files };
}
