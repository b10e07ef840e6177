import { parseArgs } from 'node:util';
import { FolioError, keepHeapsSmall } from '@elastic-folio/core/node';
import { USAGE, UsageError } from './usage.ts';

const OPTIONS = {
  json: { type: 'boolean' },
  to: { type: 'string' },
  out: { type: 'string' },
  from: { type: 'string' },
  recipe: { type: 'string' },
  edition: { type: 'string' },
  pages: { type: 'string' },
  source: { type: 'string' },
  target: { type: 'string' },
  memory: { type: 'string' },
  'copy-source': { type: 'boolean' },
  sentences: { type: 'boolean' },
  good: { type: 'boolean' },
  flatten: { type: 'boolean' },
  original: { type: 'boolean' },
  help: { type: 'boolean' },
} as const;

async function run(argv: string[]): Promise<void> {
  let parsed;
  try {
    parsed = parseArgs({ args: argv, options: OPTIONS, allowPositionals: true });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
  const { values, positionals } = parsed;
  const [command, file, ...more] = positionals;
  if (values.help || command === 'help') return console.log(USAGE);
  if ((more.length && command !== 'segments') || (command === 'samples' && file))
    throw new UsageError(`"${more[0] ?? file}" is one argument too many.`);
  const need = (value: string | undefined, name: string): string => {
    if (!value) throw new UsageError(`${command} needs ${name}.`);
    return value;
  };
  const print = (result: unknown, text: () => string): void => console.log(values.json ? JSON.stringify(result, null, 1) : text());
  // Each command brings what it needs: whoever asks for help waits for none of it.
  if (command === 'inspect') {
    const { inspect } = await import('./inspect.ts');
    const r = await inspect(need(file, 'a FILE'));
    print(
      r,
      () =>
        `${r.title}: ${r.pages} pages, ${r.words} words, ${r.stories} texts, ${r.items} items, ${r.paragraphStyles.length} paragraph styles\n${[
          ...r.findings.map((f) => ({ page: f.page, says: f.says })),
          ...r.notTaken.map((n) => ({ page: n.page, says: `${n.what}: ${n.reason}` })),
        ]
          .map((f) => `- ${f.page ? `page ${f.page}: ` : ''}${f.says}`)
          .join('\n')}`,
    );
  } else if (command === 'convert') {
    const { convertFile } = await import('./convert.ts');
    const onProgress = values.json
      ? undefined
      : (id: string, done: number, total: number): void => console.error(`${id}: page ${done} of ${total}`);
    const r = await convertFile(need(file, 'a FILE'), {
      to: need(values.to, '--to'),
      out: need(values.out, '--out'),
      recipe: values.recipe,
      edition: values.edition,
      pages: values.pages,
      ...(onProgress && { onProgress }),
    });
    print(r, () =>
      r.outputs
        .map(
          (o) =>
            `${o.id}: ${o.files.length} files in ${o.ms} ms; ${o.ledger.kept} kept, ${o.ledger.adapted} adapted, ${o.ledger.dropped} dropped, ${o.ledger.excluded} left out; ${o.valid ? 'confirmed by reading back' : 'NOT VALID: reading back contradicts the ledger'}`,
        )
        .join('\n'),
    );
    if (r.outputs.some((o) => !o.valid)) process.exitCode = 1;
  } else if (command === 'corrections') {
    const { corrections } = await import('./corrections.ts');
    const r = await corrections(need(file, 'a FILE'), need(values.from, '--from'), values.out);
    print(r, () =>
      [
        ...r.corrections.map(
          (c) => `${c.paragraph}${c.changedHere ? ' (changed here as well; not taken)' : ''}\n- ${c.before}\n+ ${c.after}`,
        ),
        ...r.added.map((a) => `new, not taken: ${a.text}`),
        ...r.gone.map((g) => `not in the file any more; it stays: ${g.text}`),
        `${r.corrections.length} paragraphs changed, ${r.taken} taken`,
      ].join('\n'),
    );
  } else if (command === 'segments') {
    const [{ segmentsOf }, { BANDS }, { BAND_NAMES }] = await Promise.all([
      import('./segments.ts'),
      import('@elastic-folio/core/language'),
      import('@elastic-folio/core/write'),
    ]);
    const r = await segmentsOf([need(file, 'a FILE'), ...more], {
      to: need(values.to, '--to'),
      out: need(values.out, '--out'),
      target: need(values.target, '--target'),
      source: values.source,
      recipe: values.recipe,
      pages: values.pages,
      memory: values.memory,
      sentences: values.sentences ?? false,
      copySource: values['copy-source'] ?? false,
    });
    print(r, () =>
      [
        ...r.documents.map(
          (d) =>
            `${d.title}: ${counted(d.analysis.total)}; ${d.stays.length} texts stay here\n  ${d.files.map((f) => f.path).join('\n  ')}`,
        ),
        `in all ${counted(r.total.total)}`,
        ...BANDS.filter((b) => r.total.bands[b].segments).map((b) => `  ${BAND_NAMES[b]}: ${counted(r.total.bands[b])}`),
      ].join('\n'),
    );
    if (r.documents.some((d) => !d.valid)) process.exitCode = 1;
  } else if (command === 'edition') {
    const { editionFrom } = await import('./edition.ts');
    const r = await editionFrom(need(file, 'a FILE'), {
      from: need(values.from, '--from'),
      target: need(values.target, '--target'),
      out: need(values.out, '--out'),
      goodOnly: values.good ?? false,
      flatten: values.flatten ?? false,
      original: values.original ?? false,
    });
    print(r, () =>
      [
        ...r.segments.flatMap((s) => [
          ...(s.kind === 'unknown' ? [`${s.id}: not in the document`] : []),
          ...s.findings.map((f) => `${s.id}${s.pages.length ? ` (page ${s.pages.join(', ')})` : ''}: ${f.says}`),
        ]),
        ...r.passedOver.map((p) => `passed over: ${p}`),
        `${r.taken} of ${r.segments.length} segments taken`,
        ...r.files,
      ].join('\n'),
    );
  } else if (command === 'samples') {
    const { samplesInto } = await import('./samples.ts');
    const r = await samplesInto(need(values.out, '--out'));
    print(r, () => r.files.map((f) => `${f.title}: ${f.path}${f.notHeld.length ? `\n  without: ${f.notHeld.join('; ')}` : ''}`).join('\n'));
  } else throw new UsageError(command ? `There is no command "${command}".` : 'A command is missing.');
}

const counted = ({ segments, words, characters }: { segments: number; words: number; characters: number }): string =>
  `${segments} segments, ${words} words, ${characters} characters`;

keepHeapsSmall();
run(process.argv.slice(2)).catch((error: unknown) => {
  if (error instanceof UsageError) {
    console.error(`${error.message}\n\n${USAGE}`);
    process.exitCode = 2;
  } else if (error instanceof FolioError) {
    console.error(`${error.message} ${error.advice}`);
    process.exitCode = 1;
  } else if ((error as NodeJS.ErrnoException).code === 'ENOENT') {
    console.error(`${(error as NodeJS.ErrnoException).path ?? 'The file'} does not exist. Check its path.`);
    process.exitCode = 1;
  } else {
    console.error(error instanceof Error ? `This should not have happened: ${error.stack}` : error);
    process.exitCode = 1;
  }
});
