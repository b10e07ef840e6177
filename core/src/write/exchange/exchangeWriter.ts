import { goesOut } from '../../language/goesOut.ts';
import type { Outgoing } from '../../language/goesOut.ts';
import { analyse } from '../../language/analyse.ts';
import { Memory } from '../../language/memory.ts';
import type { ExchangeJob } from '../../language/exchange.ts';
import { wholeEdition } from '../../language/inEdition.ts';
import { memoryOfEdition, outboundOf } from '../../language/outbound.ts';
import { pagesOf } from '../../folio/traverse.ts';
import { observeExchange } from '../../ledger/exchange/observeExchange.ts';
import { FolioError } from '../../ports/ports.ts';
import { PdfSettings } from '../pdf/settings.ts';
import { readExchange } from '../../read/exchange/index.ts';
import { outputFile, streamedFile } from '../assets/outputFile.ts';
import type { OutputFile, WriteJob, Writer } from '../writer.ts';
import type { ExchangeFormat } from './exchangeFormat.ts';
import { exchangeReport } from './exchangeReport.ts';
import { ExchangeSettings } from './exchangeSettings.ts';
import { EXCHANGE_SENTENCES, planExchange } from './planExchange.ts';
import type { ExchangeCode } from './planExchange.ts';

/** An output of one of the formats for translators: its file, a report, and what goes along. */
export function exchangeWriter(format: ExchangeFormat): Writer<ExchangeSettings, ExchangeCode> {
  return {
    id: format.id,
    label: format.label,
    about: format.about,
    version: 1,
    view: 'texts',
    entry: 'report.html',
    settings: ExchangeSettings,
    migrate: (old) => ExchangeSettings.parse(old),
    write: (job) => write(format, job),
    plan: (job) => planExchange(job, preparedFor(job).out),
    async *readBack(files, job) {
      const path = fileFor(format, job);
      const file = files.find((f) => f.path === path);
      if (!file) throw new FolioError('readBack.missing', 'The result has no texts.', 'Run it again.');
      yield* observeExchange(job.folio, (await prepare(job)).job, await file.bytes(), path, readExchange);
    },
    sentences: EXCHANGE_SENTENCES,
  };
}

/** The name of the file, with the language’s code. */
const fileFor = ({ extension }: ExchangeFormat, { settings }: WriteJob<ExchangeSettings>): string => `texts.${settings.target}${extension}`;

interface Prepared {
  out: Outgoing;
}
const prepared = new WeakMap<object, Prepared>();

/** What goes out of a job, worked out once. */
function preparedFor(job: WriteJob<ExchangeSettings>): Prepared {
  let made = prepared.get(job);
  if (!made) prepared.set(job, (made = { out: goesOut(job.folio, job.settings, job.composition) }));
  return made;
}

async function prepare(job: WriteJob<ExchangeSettings>): Promise<{ job: ExchangeJob; memory: Memory; out: Outgoing }> {
  const { folio, settings } = job;
  const { head } = folio;
  const source = settings.source || head.metadata.language;
  if (source.toLowerCase() === settings.target.toLowerCase())
    throw new FolioError('exchange.same', `The document is in “${source}” already.`, 'Choose another language to translate it into.');
  const { out } = preparedFor(job);
  if (!out.units.length)
    throw new FolioError('exchange.nothing', 'Nothing of the document goes out with these settings.', 'Let more of its texts go out.');
  const edition = wholeEdition(folio, settings.target);
  const known = memoryOfEdition(out.units, edition);
  const memory = new Memory([...((await job.memory?.(source, settings.target)) ?? []), ...known]);
  return {
    out,
    memory,
    job: {
      document: { id: head.id, title: head.metadata.title },
      source,
      target: settings.target,
      units: out.units,
      translated: outboundOf(out.units, edition, memory, settings.pretranslation),
      copySource: settings.targets === 'copies',
      clock: job.clock,
    },
  };
}

async function* write(format: ExchangeFormat, job: WriteJob<ExchangeSettings>): AsyncGenerator<OutputFile> {
  const { settings, folio } = job;
  const { job: exchange, memory, out } = await prepare(job);
  yield outputFile(fileFor(format, job), format.mediaType, await format.write(exchange));
  const [analysis] = analyse([out.units], memory);
  yield outputFile('report.html', 'text/html', exchangeReport(format, job, exchange, out, analysis!));
  if (settings.pagesToSee) {
    const { writePdf } = await import('../pdf/writePdf.ts');
    const pdf = PdfSettings.parse({ pages: settings.pages, hiddenLayers: settings.hiddenLayers, resolution: 110 });
    for await (const file of writePdf({ ...job, settings: pdf })) yield { ...file, path: 'pages.pdf' };
  }
  if (settings.pictures)
    for (const media of Object.values(folio.head.media))
      if (media.mediaType.startsWith('image/') && isShown(job, media.id))
        yield streamedFile(
          `pictures/${media.file.slice(media.file.lastIndexOf('/') + 1)}`,
          media.mediaType,
          once(() => job.media(media.id)),
        );
}

async function* once(bytes: () => Promise<Uint8Array>): AsyncGenerator<Uint8Array> {
  yield await bytes();
}

const isShown = ({ folio }: WriteJob<ExchangeSettings>, media: string): boolean =>
  pagesOf(folio).some(({ spread }) => Object.values(spread.items).some((i) => i.kind === 'picture' && i.media === media));
