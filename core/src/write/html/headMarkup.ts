import { attrs, escape, num } from '../../paint/svg/markup.ts';
import { px } from '../../paint/html/metrics.ts';
import { keywordsFor } from './keywords.ts';
import type { WriteJob } from '../writer.ts';
import type { HtmlSettings } from './settings.ts';
import { MANIFEST_FILE, themeOf, TOUCH_ICON } from './homeScreen.ts';
import { isOneAtATime } from './siteCss.ts';
import type { Site, SiteFile } from './siteFiles.ts';

/** What an edition says of itself to those who look for it, the same in all of its files. */
export interface SiteFacts {
  title: string;
  description: string;
  authors: string[];
  keywords: string[];
  language: string;
  /** Pictures for previews, as files of the edition: by the file that each stands for. */
  cards: ReadonlyMap<string, { path: string; width: number; height: number }>;
  hasIcons: boolean;
}

export function factsOf(
  { folio, settings }: WriteJob<HtmlSettings>,
  language: string,
  made: Pick<SiteFacts, 'cards' | 'hasIcons'>,
): SiteFacts {
  const { metadata } = folio.head;
  const asked = settings.keywords.split(',').flatMap((k) => k.trim() || []);
  const found = asked.length ? asked : keywordsFor(folio);
  return {
    title: settings.title || metadata.title,
    description: settings.description.trim() || metadata.description || '',
    authors: metadata.creators,
    keywords: found,
    language,
    ...made,
  };
}

const meta = (attributes: Record<string, string | undefined>): string => (attributes['content'] ? `<meta${attrs(attributes)}>\n` : '');

/** The address of a file where the edition will stand; undefined where nobody has said. */
export const addressIn = (settings: HtmlSettings, file: string): string | undefined =>
  settings.address === '' ? undefined : new URL(file === 'index.html' ? '.' : file, withSlash(settings.address)).href;
const withSlash = (address: string): string => (/\/[^/]*\.[a-z]+$/i.test(address) || address.endsWith('/') ? address : `${address}/`);

/** What stands in the head of a file. */
export function headMarkup(job: WriteJob<HtmlSettings>, site: Site, file: SiteFile, facts: SiteFacts): string {
  const { settings } = job;
  const isFirst = file.name === 'index.html';
  const title = isFirst ? facts.title : `${file.title} – ${facts.title}`;
  const address = addressIn(settings, file.name);
  const card = facts.cards.get(file.name) ?? facts.cards.get('index.html');
  const image = card && addressIn(settings, card.path);
  const first = file.slots[0]?.[0];
  // Pages in their own size are shown so on phones, too; others fit themselves to the screen.
  const viewport =
    settings.fit === 'size' && !isOneAtATime(settings.form)
      ? `width=${num(Math.ceil(px(first?.page.box.width ?? 600)), 0)}`
      : 'width=device-width,initial-scale=1';
  const at = site.files.indexOf(file);
  const around = (rel: string, to: SiteFile | undefined): string => (to ? `<link${attrs({ rel, href: to.name })}>\n` : '');
  return (
    `<meta charset="utf-8">\n<meta${attrs({ name: 'viewport', content: viewport })}>\n<title>${escape(title)}</title>\n` +
    meta({ name: 'description', content: facts.description }) +
    meta({ name: 'author', content: facts.authors.join(', ') }) +
    meta({ name: 'keywords', content: facts.keywords.join(', ') }) +
    meta({ name: 'robots', content: settings.listed ? '' : 'noindex' }) +
    meta({ name: 'theme-color', content: themeOf(settings) }) +
    (settings.app ? `<link${attrs({ rel: 'manifest', href: MANIFEST_FILE })}>\n` : '') +
    (facts.hasIcons
      ? `<link${attrs({ rel: 'icon', href: 'icons/any-192.png', sizes: '192x192', type: 'image/png' })}>\n<link${attrs({ rel: 'apple-touch-icon', href: TOUCH_ICON.path })}>\n`
      : '') +
    (address ? `<link${attrs({ rel: 'canonical', href: address })}>\n` : '') +
    around('prev', site.files[at - 1]) +
    around('next', site.files[at + 1]) +
    // The Open Graph protocol (ogp.me), by which previews of links are made.
    meta({ property: 'og:type', content: isFirst ? 'website' : 'article' }) +
    meta({ property: 'og:title', content: isFirst ? facts.title : file.title }) +
    meta({ property: 'og:description', content: facts.description }) +
    meta({ property: 'og:locale', content: facts.language.replace('-', '_') }) +
    meta({ property: 'og:site_name', content: isFirst ? '' : facts.title }) +
    meta({ property: 'og:url', content: address }) +
    meta({ property: 'og:image', content: image ?? '' }) +
    (image ? meta({ property: 'og:image:width', content: String(card!.width) }) : '') +
    (image ? meta({ property: 'og:image:height', content: String(card!.height) }) : '') +
    `<script type="application/ld+json">${json(structuredData(site, file, facts, address, image ?? undefined, settings))}</script>\n`
  );
}

/** What the file is, in the words of schema.org: a creative work, and of a site the parts of it. */
function structuredData(
  site: Site,
  file: SiteFile,
  facts: SiteFacts,
  address: string | undefined,
  image: string | undefined,
  settings: HtmlSettings,
): unknown {
  const whole = {
    '@type': 'CreativeWork',
    name: facts.title,
    inLanguage: facts.language,
    ...(facts.description && { description: facts.description }),
    ...(facts.authors.length && { author: facts.authors.map((name) => ({ '@type': 'Organization', name })) }),
    ...(facts.keywords.length && { keywords: facts.keywords.join(', ') }),
  };
  const base = { '@context': 'https://schema.org', ...(address && { url: address }), ...(image && { image }) };
  if (file.name !== 'index.html') return { ...base, '@type': 'WebPage', name: file.title, inLanguage: facts.language, isPartOf: whole };
  const parts = site.files.slice(1).map((f) => {
    const url = addressIn(settings, f.name);
    return { '@type': 'WebPage', name: f.title, ...(url && { url }) };
  });
  return { ...base, ...whole, ...(parts.length && { hasPart: parts }) };
}

/** JSON in a script: nothing in it can end the script. */
const json = (value: unknown): string => JSON.stringify(value).replace(/</g, '\\u003c');

/** The list of a site's addresses for search programs (sitemaps.org, protocol 0.9). */
export const sitemap = (addresses: readonly string[]): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${addresses.map((a) => `<url><loc>${escape(a)}</loc></url>`).join('\n')}\n</urlset>\n`;
