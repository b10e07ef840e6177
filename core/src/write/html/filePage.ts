import type { Program } from '../../../../player/src/program.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { px } from '../../paint/html/metrics.ts';
import { attrs, escape, num } from '../../paint/svg/markup.ts';
import { programScript } from '../pages/programScript.ts';
import type { WriteJob } from '../writer.ts';
import { aroundMarkup, barMarkup } from './barMarkup.ts';
import type { SmallPicture } from './barMarkup.ts';
import { headMarkup } from './headMarkup.ts';
import type { SiteFacts } from './headMarkup.ts';
import { ownFiles, ownMarkup } from './ownFiles.ts';
import type { HtmlSettings } from './settings.ts';
import { isOneAtATime } from './siteCss.ts';
import type { Site, SiteFile } from './siteFiles.ts';
import { siteWords } from './siteWords.ts';

/** What a file of an edition is put together from. */
interface FileParts {
  site: Site;
  file: SiteFile;
  facts: SiteFacts;
  /** Pages' markup by their ids. */
  bodies: ReadonlyMap<string, string>;
  /** How many pages the edition has. */
  count: number;
  small: ReadonlyMap<string, SmallPicture>;
  program: Program;
  /** Whether it is shown inside another document's page. */
  inside: boolean;
}

/** A file of the web edition. */
export function filePage(job: WriteJob<HtmlSettings>, { site, file, facts, bodies, count, small, program, inside }: FileParts): string {
  const { settings } = job;
  const own = ownFiles(job);
  const words = siteWords(facts.language);
  const slots = file.slots.map((pages) => slotMarkup(pages, bodies, inside));
  const form = slots.some((s) => s.includes(' data-field=')) ? '<form>\n' : '';
  const first = file.slots[0]?.[0]?.page.box;
  // What is moved about in its own box can be moved by keys (WCAG 2.2, 2.1.1).
  const isMoved = !inside && (settings.form === 'banner' || isOneAtATime(settings.form));
  const size = settings.form === 'banner' && first ? `--w:${num(px(first.width), 4)}px;--h:${num(px(first.height), 4)}px` : undefined;
  return `<!doctype html>
<html lang="${escape(facts.language)}">
<head>
${headMarkup(job, site, file, facts)}<link rel="stylesheet" href="style.css">
<script defer src="player.js"></script>
${inside ? '' : ownMarkup(own, 'head')}${settings.head}</head>
<body>
${inside ? '' : barMarkup(site, settings, words, count, small)}${!inside && settings.progress ? '<div class="progress" aria-hidden="true"></div>' : ''}${!inside && settings.loading ? `<p class="loading" role="status">${escape(settings.loading)}</p>` : ''}
<main${attrs({ style: size, ...(isMoved && { tabindex: 0, 'aria-label': facts.title }) })}>
${form}${slots.join('\n')}
${form && '</form>\n'}</main>
${inside ? '' : aroundMarkup(site, file, words)}${programScript(program)}
${inside ? '' : ownMarkup(own, 'end')}${settings.end}</body>
</html>
`;
}

/** The pages that are seen at once, with the room that they ask for: of all, and of the widest alone. */
function slotMarkup(pages: readonly PagePlace[], bodies: ReadonlyMap<string, string>, inside: boolean): string {
  const markup = pages.map((p) => bodies.get(p.page.id)!).join('\n');
  if (inside) return markup;
  const boxes = pages.map((p) => p.page.box);
  const width = boxes.reduce((sum, b) => sum + b.width, 0);
  const style = {
    w: width,
    h: Math.max(...boxes.map((b) => b.height)),
    ...(pages.length > 1 && { w1: Math.max(...boxes.map((b) => b.width)) }),
  };
  const vars = Object.entries(style).map(([name, v]) => `--${name}:${num(px(v), 4)}px`);
  if (pages.length === 1) vars.push('--w1:var(--w)');
  return `<div${attrs({ class: 'slot', style: vars.join(';') })}>${markup}</div>`;
}
