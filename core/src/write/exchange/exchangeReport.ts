import { BANDS } from '../../language/analyse.ts';
import type { Analysis, Band } from '../../language/analyse.ts';
import type { ExchangeJob } from '../../language/exchange.ts';
import type { Outgoing } from '../../language/goesOut.ts';
import { wordsOf } from '../../language/parts.ts';
import type { WriteJob } from '../writer.ts';
import { attrs, escape } from '../../paint/svg/markup.ts';
import { placeOf } from './exchangeFormat.ts';
import type { ExchangeFormat } from './exchangeFormat.ts';
import type { ExchangeSettings } from './exchangeSettings.ts';

export const BAND_NAMES: Record<Band, string> = {
  inContext: 'the same in the same place',
  repeated: 'repeated in these texts',
  exact: 'the same',
  '95-99': '95 to 99 % the same',
  '85-94': '85 to 94 % the same',
  '75-84': '75 to 84 % the same',
  '50-74': '50 to 74 % the same',
  new: 'new',
};

/** Why texts stay here, in plain words. */
const STAYS: Record<string, string> = {
  pages: 'on other pages',
  strands: 'in other strands',
  styles: 'in other styles',
  hiddenLayers: 'on hidden layers',
  masters: 'on master pages',
  altTexts: 'alt texts',
  metadata: 'about the document',
  notes: 'notes',
  speakersNotes: 'speaker’s notes',
  outline: 'headings for lists',
  linkTargets: 'addresses of links',
  fieldLabels: 'form fields',
  captions: 'words of films and sounds',
  onlyNumbers: 'only numbers and signs',
  otherLanguages: 'in other languages',
  repeatedBefore: 'repeated; once is enough',
  nothing: 'nothing to translate',
};

/** Codes in one text beyond which a translator has a hard time (own choice). */
const MANY_CODES = 8;

const CSS = `body{font:15px/1.5 system-ui,sans-serif;max-width:52rem;margin:2rem auto;padding:0 1rem;color:#22302c;background:#fbf9f4}
h1,h2{font-family:Georgia,serif;line-height:1.2}table{border-collapse:collapse;width:100%;margin:1rem 0}
th,td{text-align:left;padding:.3rem .6rem;border-bottom:1px solid #d9d2c3;vertical-align:top}td.n,th.n{text-align:right;font-variant-numeric:tabular-nums}
.small{color:#59655e;font-size:13px}`;

/** The report that goes along: what there is to do, what should be looked at, and what was left out. */
export function exchangeReport(
  format: ExchangeFormat,
  job: WriteJob<ExchangeSettings>,
  exchange: ExchangeJob,
  out: Outgoing,
  analysis: Analysis,
): string {
  const { document, source, target } = exchange;
  const row = (cells: (string | number)[], tag = 'td'): string =>
    `<tr>${cells.map((c) => `<${tag}${attrs({ class: typeof c === 'number' ? 'n' : undefined })}>${typeof c === 'number' ? c.toLocaleString('en') : escape(c)}</${tag}>`).join('')}</tr>`;
  const counts = BANDS.filter((b) => analysis.bands[b].segments).map((b) =>
    row([BAND_NAMES[b], analysis.bands[b].segments, analysis.bands[b].words, analysis.bands[b].characters]),
  );
  const warnings = warningsOf(job, out);
  const reasons = new Map<string, Outgoing['stays']>();
  for (const s of out.stays) reasons.set(s.because, [...(reasons.get(s.because) ?? []), s]);
  const done = [...exchange.translated.values()].filter((t) => t.target).length;
  const title = `${document.title || document.id}: ${source} → ${target}`;
  return `<!DOCTYPE html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escape(title)}</title><style>${CSS}</style></head><body>
<h1>${escape(title)}</h1>
<p>${escape(format.label)}, <code>texts.${escape(target)}${escape(format.extension)}</code>. ${escape(format.about)}</p>
<h2>What there is to do</h2>
<table><thead>${row(['In the memory', 'Segments', 'Words', 'Characters'], 'th').replace(/<th>(Segments|Words|Characters)/g, '<th class="n">$1')}</thead><tbody>${counts.join('')}${row(['all', analysis.total.segments, analysis.total.words, analysis.total.characters])}</tbody></table>
<p>${done.toLocaleString('en')} of ${analysis.total.segments.toLocaleString('en')} segments have a translation already.</p>
${warnings.length ? `<h2>To look at</h2><table><tbody>${warnings.map((w) => row([w.where, w.says])).join('')}</tbody></table>` : ''}
${
  reasons.size
    ? `<h2>What stays here</h2>${[...reasons].map(([because, list]) => `<p><strong>${list.length.toLocaleString('en')}</strong> ${escape(STAYS[because] ?? because)}: <span class="small">${escape(someOf(list))}</span></p>`).join('\n')}`
    : '<p>Nothing was left out.</p>'
}
<h2>Codes</h2>
<p>Formatting, links, fields and notes stand in the texts as numbered codes. They can be moved with their words; none may be lost or doubled. A mark for a line’s end can be moved or taken out.</p>
</body></html>
`;
}

const someOf = (list: Outgoing['stays']): string => {
  const texts = [...new Set(list.map(({ unit }) => shortened(wordsOf(unit.parts))))];
  return (
    texts
      .slice(0, 6)
      .map((t) => `“${t}”`)
      .join(', ') + (texts.length > 6 ? ' …' : '')
  );
};

const shortened = (text: string): string => (text.length > 60 ? `${text.slice(0, 57).trimEnd()}…` : text).trim();

function warningsOf({ folio, composition }: WriteJob<ExchangeSettings>, out: Outgoing): { where: string; says: string }[] {
  const found: { where: string; says: string }[] = [];
  const stories = new Set(out.units.flatMap((u) => u.story ?? []));
  for (const id of stories) {
    const overflow = composition.stories.get(id)?.overflow;
    if (overflow)
      found.push({
        where: placeOf(out.units.find((u) => u.story === id)!),
        says: `The text does not fit its frame as it is: ${overflow.words} words are not seen.`,
      });
  }
  for (const unit of out.units) {
    if (unit.codes.length > MANY_CODES)
      found.push({ where: placeOf(unit), says: `“${shortened(wordsOf(unit.parts))}” has ${unit.codes.length} codes.` });
    if (unit.language.split('-')[0] !== folio.head.metadata.language.split('-')[0])
      found.push({ where: placeOf(unit), says: `“${shortened(wordsOf(unit.parts))}” is in another language (${unit.language}).` });
  }
  return found;
}
