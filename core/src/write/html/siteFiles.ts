import { slugOf } from '../../folio/slug.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { printedNumber } from '../../folio/traverse.ts';
import type { WriteJob } from '../writer.ts';
import type { Scope } from '../scope.ts';
import { headingsOf, readingOfSpread } from '../../structure/reading.ts';
import type { Heading, PageReading } from '../../structure/reading.ts';
import type { HtmlSettings } from './settings.ts';

/** Letters that the name of a file has of its title. */
const LONGEST_NAME = 60;

/** A file of the edition: its name, what it is called, and the pages in it, gathered as they are seen at once. */
export interface SiteFile {
  name: string;
  title: string;
  slots: PagePlace[][];
}

/** The edition's files, and where each page and heading is found. */
export interface Site {
  files: SiteFile[];
  /** Headings that lists of contents have, in order. */
  headings: (Heading & { listed: string })[];
  /** The id of a page's element. */
  anchorOf(page: string): string;
  /** The address of a page, from any file of the edition. */
  addressOf(page: string): string;
}

/** How an edition is divided into files: one for all pages, or one for each page or section of a site. */
export function siteOf(job: WriteJob<HtmlSettings>, scope: Scope, inside: boolean): Site {
  const form = inside ? 'stacked' : job.settings.form;
  const joins = form === 'spreads' || (job.settings.joined && form !== 'banner' && !inside);
  const title = job.settings.title || job.folio.head.metadata.title;
  const readings = readingsOf(job, scope);
  const headings = scope.pages.flatMap(({ page }) =>
    headingsOf(job.folio, page.id, readings.get(page.id)!).flatMap((h) => (h.listed === null ? [] : [{ ...h, listed: h.listed }])),
  );
  const groups =
    form === 'site'
      ? job.settings.joined
        ? pairsOf(scope.pages)
        : scope.pages.map((p) => [p])
      : form === 'sections'
        ? sectionsOf(scope.pages, (page) => startsSection(readings.get(page)!))
        : [scope.pages];
  const taken = new Set(['index']);
  const files = groups.map((pages, i): SiteFile => {
    const own = headings.find((h) => pages.some((p) => p.page.id === h.page));
    const called = own?.listed ?? `Page ${printedNumber(pages[0]!)}`;
    const slots = joins ? pairsOf(pages) : pages.map((p) => [p]);
    return i === 0
      ? { name: 'index.html', title, slots }
      : { name: `${free(slugOf(called, LONGEST_NAME) || `page-${pages[0]!.number}`, taken)}.html`, title: called, slots };
  });
  const anchors = new Map(scope.pages.map((p) => [p.page.id, `page-${p.number}`]));
  const homes = new Map(files.flatMap((f) => f.slots.flat().map((p) => [p.page.id, f.name] as const)));
  const anchorOf = (page: string): string => anchors.get(page)!;
  return {
    files,
    headings,
    anchorOf,
    addressOf: (page) => `${files.length > 1 ? homes.get(page)! : ''}#${anchorOf(page)}`,
  };
}

function readingsOf({ folio, composition }: WriteJob<HtmlSettings>, scope: Scope): Map<string, PageReading> {
  const out = new Map<string, PageReading>();
  for (const spread of new Set(scope.pages.map((p) => p.spread)))
    for (const [page, reading] of readingOfSpread(folio, composition, spread, scope.shown)) out.set(page, reading);
  return out;
}

const startsSection = ({ units }: PageReading): boolean => units.some((u) => u.kind === 'paragraph' && u.begins && u.role.startsSection);

/** Pages from one that begins a section up to the next that does. */
function sectionsOf(pages: readonly PagePlace[], starts: (page: string) => boolean): PagePlace[][] {
  const out: PagePlace[][] = [];
  for (const p of pages) {
    if (!out.length || starts(p.page.id)) out.push([]);
    out.at(-1)!.push(p);
  }
  return out;
}

/** Pages of one spread are seen at once. */
function pairsOf(pages: readonly PagePlace[]): PagePlace[][] {
  const out: PagePlace[][] = [];
  for (const p of pages)
    if (out.at(-1)?.[0]!.spread.id === p.spread.id) out.at(-1)!.push(p);
    else out.push([p]);
  return out;
}

function free(stem: string, taken: Set<string>): string {
  let name = stem;
  for (let n = 2; taken.has(name); n++) name = `${stem}-${n}`;
  taken.add(name);
  return name;
}
