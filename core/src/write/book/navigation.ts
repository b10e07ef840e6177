import { escape } from '../../paint/svg/markup.ts';
import type { OutlineEntry } from '../reflow/prepareFlow.ts';

interface Node {
  entry: OutlineEntry;
  children: Node[];
}

/** Headings as a tree: each stands in the nearest one before it of a higher level; levels that are skipped are no rungs. */
function treeOf(outline: readonly OutlineEntry[]): Node[] {
  const root: Node[] = [];
  const path: Node[] = [];
  for (const entry of outline) {
    while (path.length && path[path.length - 1]!.entry.level >= entry.level) path.pop();
    const node: Node = { entry, children: [] };
    (path[path.length - 1]?.children ?? root).push(node);
    path.push(node);
  }
  return root;
}

const list = (nodes: readonly Node[]): string =>
  `<ol>\n${nodes
    .map((n) => `<li><a href="${escape(n.entry.href)}">${escape(n.entry.text)}</a>${n.children.length ? `\n${list(n.children)}` : ''}</li>`)
    .join('\n')}\n</ol>`;

/** The navigation document (EPUB 3.3, section 7): contents, pages of the printed edition, landmarks. */
export function navigationDocument(o: {
  title: string;
  language: string;
  words: { contents: string; pages: string; landmarks: string; text: string };
  outline: readonly OutlineEntry[];
  pages: readonly { printed: string; href: string }[];
  landmarks: readonly { type: string; title: string; href: string }[];
}): string {
  const pageList = o.pages.length
    ? `<nav epub:type="page-list" role="doc-pagelist" aria-label="${escape(o.words.pages)}" hidden="hidden">
<ol>
${o.pages.map((p) => `<li><a href="${escape(p.href)}">${escape(p.printed)}</a></li>`).join('\n')}
</ol>
</nav>`
    : '';
  return `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE html>
<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="${escape(o.language)}" xml:lang="${escape(o.language)}">
<head>
<meta charset="utf-8"/>
<title>${escape(o.title)}</title>
<link rel="stylesheet" type="text/css" href="style.css"/>
</head>
<body>
<nav epub:type="toc" role="doc-toc" aria-labelledby="contents">
<h1 id="contents">${escape(o.words.contents)}</h1>
${list(treeOf(o.outline))}
</nav>
<nav epub:type="landmarks" aria-label="${escape(o.words.landmarks)}" hidden="hidden">
<ol>
${o.landmarks.map((l) => `<li><a epub:type="${l.type}" href="${escape(l.href)}">${escape(l.title)}</a></li>`).join('\n')}
</ol>
</nav>
${pageList}
</body>
</html>
`;
}

const WORDS: Record<string, { contents: string; pages: string; landmarks: string; text: string; cover: string }> = {
  en: { contents: 'Contents', pages: 'Pages', landmarks: 'Landmarks', text: 'Beginning of the text', cover: 'Cover' },
  de: { contents: 'Inhalt', pages: 'Seiten', landmarks: 'Wegmarken', text: 'Beginn des Textes', cover: 'Umschlag' },
  ja: { contents: '目次', pages: 'ページ', landmarks: 'ランドマーク', text: '本文', cover: '表紙' },
  fr: { contents: 'Table des matières', pages: 'Pages', landmarks: 'Repères', text: 'Début du texte', cover: 'Couverture' },
  es: { contents: 'Índice', pages: 'Páginas', landmarks: 'Puntos de referencia', text: 'Comienzo del texto', cover: 'Cubierta' },
};

/** The words of a navigation document in a language, in English where there are none. */
export const wordsFor = (language: string) => WORDS[language.split('-')[0]!.toLowerCase()] ?? WORDS['en']!;
