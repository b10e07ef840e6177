import { attrs, escape } from '../../paint/svg/markup.ts';
import { printedNumber } from '../../folio/traverse.ts';
import type { HtmlSettings } from './settings.ts';
import type { Site, SiteFile } from './siteFiles.ts';
import type { SiteWords } from './siteWords.ts';

const button = (does: string, sign: string, label: string): string =>
  `<button${attrs({ type: 'button', class: 'needs', 'data-do': does, 'aria-label': label, title: label })}>${sign}</button>`;

/** The bar of a file. Contents and the ways to other files are links, which need no program; what needs one is seen with it. */
export function barMarkup(
  site: Site,
  settings: HtmlSettings,
  w: SiteWords,
  count: number,
  small: ReadonlyMap<string, SmallPicture>,
): string {
  const parts: Record<HtmlSettings['bar'][number], () => string> = {
    contents: () =>
      `<details class="contents"><summary>${escape(w.contents)}</summary><nav${attrs({ 'aria-label': w.contents })}>${contents(site)}</nav></details>`,
    overview: () =>
      `<details class="contents overview"><summary>${escape(w.pages)}</summary><nav${attrs({ 'aria-label': w.pages })}>${overview(site, w, count, small)}</nav></details>`,
    arrows: () => button('back', '‹', w.back) + button('next', '›', w.next),
    slider: () =>
      count > 1
        ? `<input${attrs({ type: 'range', class: 'needs', 'data-do': 'slider', min: 1, max: count, value: 1, 'aria-label': w.pages })}/>`
        : '',
    number: () => `<output class="needs" data-do="number"></output>`,
    search: () =>
      `<div class="search needs" role="search"><input${attrs({ type: 'search', 'data-do': 'search', 'aria-label': w.search, placeholder: w.search })}/><div class="found" hidden><p role="status"></p><ol></ol></div></div>`,
    enlarge: () => button('smaller', '−', w.smaller) + button('larger', '+', w.larger),
    sound: () =>
      `<button${attrs({ type: 'button', class: 'needs', 'data-do': 'sound', 'aria-pressed': 'true' })}>${escape(w.sound)}</button>`,
    share: () =>
      `<button type="button" class="needs" data-do="share">${escape(w.share)}</button><span class="needs told" role="status"></span>`,
    fullScreen: () => `<button type="button" class="needs" data-do="fullScreen">${escape(w.fullScreen)}</button>`,
  };
  const inside = settings.bar.map((part) => parts[part]()).join('\n');
  return inside ? `<header class="bar">\n${inside}\n</header>` : '';
}

/** A page drawn small. */
export interface SmallPicture {
  path: string;
  width: number;
  height: number;
}

/** All pages as small pictures, each a link; they come when the list is opened. */
function overview(site: Site, w: SiteWords, count: number, small: ReadonlyMap<string, SmallPicture>): string {
  const entries = site.files
    .flatMap((f) => f.slots.flat())
    .flatMap((p, i) => {
      const picture = small.get(p.page.id);
      if (!picture) return [];
      const alt = w.page.replace('{n}', String(i + 1)).replace('{all}', String(count));
      return [
        `<li><a${attrs({ href: site.addressOf(p.page.id) })}><img${attrs({ src: picture.path, width: picture.width, height: picture.height, alt, loading: 'lazy' })}/></a></li>`,
      ];
    });
  return `<ol>${entries.join('')}</ol>`;
}

/** What readers jump by: headings, each a step further in under the one above; pages where there are none. */
function contents(site: Site): string {
  const entries = site.headings.length
    ? site.headings.map((h) => ({ level: h.level, text: h.listed, href: `${site.addressOf(h.page).split('#')[0]!}#${h.paragraph}` }))
    : site.files.flatMap((f) => f.slots.flat()).map((p) => ({ level: 1, text: printedNumber(p), href: site.addressOf(p.page.id) }));
  const top = Math.min(...entries.map((e) => e.level));
  return `<ol>${entries.map((e) => `<li${attrs({ style: e.level > top ? `--in:${e.level - top}` : undefined })}><a${attrs({ href: e.href })}>${escape(e.text)}</a></li>`).join('')}</ol>`;
}

/** Where a site goes on from a file, and what was before it. */
export function aroundMarkup(site: Site, file: SiteFile, w: SiteWords): string {
  const at = site.files.indexOf(file);
  const [before, after] = [site.files[at - 1], site.files[at + 1]];
  if (!before && !after) return '';
  const link = (to: SiteFile | undefined, rel: 'prev' | 'next', sign: string): string =>
    to
      ? `<a${attrs({ rel, href: to.name })}>${rel === 'prev' ? `${sign} ` : ''}${escape(to.title)}${rel === 'next' ? ` ${sign}` : ''}</a>`
      : '<span></span>';
  return `<nav${attrs({ class: 'around', 'aria-label': w.pages })}>${link(before, 'prev', '‹')}${link(after, 'next', '›')}</nav>`;
}
