import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Folio } from '../../folio/folio.ts';
import type { ExchangeJob, Inbound } from '../../language/exchange.ts';
import { keyOf, readable } from '../../language/parts.ts';
import { segmentId } from '../../language/unit.ts';
import type { CutUnit } from '../../language/unit.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { DEFAULT_LIMITS } from '../../packages/limits.ts';
import type { Evidence } from '../entry.ts';
import { masterInstances } from './masterInstances.ts';

type Read = (file: string, name: string, limits: ArchiveLimits) => Promise<Inbound>;

/** Reads a file of texts as if it came back from a translator, and holds it against what should be in it. */
export async function* observeExchange(
  folio: Folio,
  job: ExchangeJob,
  bytes: Uint8Array,
  name: string,
  read: Read,
): AsyncGenerator<Evidence> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-exchange-'));
  let inbound: Inbound;
  try {
    await writeFile(join(folder, name), bytes);
    inbound = await read(join(folder, name), name, DEFAULT_LIMITS);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
  const counts = new Map<string, number>();
  for (const s of inbound.segments) counts.set(s.unit, (counts.get(s.unit) ?? 0) + 1);
  const found = new Map(inbound.segments.map((s) => [segmentId(s.unit, s.at, counts.get(s.unit)!), s]));
  const isOf = inbound.document === null || inbound.document === job.document.id;
  const languages = (inbound.source ?? job.source) === job.source && (inbound.target ?? job.target) === job.target;
  yield {
    subject: { kind: 'document', id: folio.head.id, aspect: 'language' },
    agrees: isOf && languages,
    says: `from ${inbound.source} into ${inbound.target}`,
  };
  let editionAgrees = true;
  for (const unit of job.units) {
    const wrong: string[] = [];
    for (const segment of unit.segments) {
      const target = job.translated.get(segment.id)?.target ?? (job.copySource ? segment.source : null);
      const back = found.get(segment.id);
      found.delete(segment.id);
      // A memory has no texts without a translation.
      if (!back && !target && name.endsWith('.tmx')) continue;
      if (!back) wrong.push(`“${segment.id}” is not in the file`);
      else if (keyOf(back.source ?? segment.source) !== keyOf(segment.source)) wrong.push(`the source is “${readable(back.source ?? [])}”`);
      else if (keyOf(back.target ?? []) !== keyOf(target ?? [])) {
        editionAgrees = false;
        wrong.push(`the target is “${readable(back.target ?? [])}”`);
      }
    }
    yield* evidenceFor(folio, unit, wrong[0]);
  }
  const more = [...found.keys()][0];
  if (folio.editions[job.target])
    yield {
      subject: { kind: 'edition', id: job.target, aspect: 'text' },
      agrees: editionAgrees && more === undefined,
      says:
        more === undefined
          ? editionAgrees
            ? 'its translations are in the file'
            : 'some of its translations are others'
          : `“${more}” is in the file, and not in the document`,
    };
}

/** What a unit says of what it stands for, and of the codes in it. */
function* evidenceFor(folio: Folio, unit: CutUnit, wrong: string | undefined): Generator<Evidence> {
  const found = { agrees: wrong === undefined, says: wrong ?? 'the same words and codes' };
  if (unit.paragraph !== undefined) {
    yield { subject: { kind: 'paragraph', id: unit.paragraph, aspect: 'text' }, ...found };
    for (const { kind, signature } of unit.codes) {
      const id = signature.slice(signature.indexOf(':') + 1);
      if (kind === 'link') yield { subject: { kind, id: `${unit.paragraph}/${id}`, aspect: 'target' }, ...found };
      if (kind === 'note' || kind === 'field') yield { subject: { kind, id, aspect: 'text' }, ...found };
      if (kind === 'anchor') yield { subject: { kind, id, aspect: 'place' }, ...found };
      if (kind === 'ruby') yield { subject: { kind, id, aspect: 'reading' }, ...found };
    }
  } else if (unit.id === 'meta:title') yield { subject: { kind: 'document', id: folio.head.id, aspect: 'title' }, ...found };
  else if (unit.id.startsWith('alt:')) {
    const id = unit.id.slice(4);
    const shown = masterInstances(folio).get(id);
    if (shown) for (const instance of shown) yield { subject: { kind: 'masterItem', id: instance, aspect: 'alt' }, ...found };
    else yield { subject: { kind: 'item', id, aspect: 'alt' }, ...found };
  }
}
