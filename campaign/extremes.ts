import { openAsBlob } from 'node:fs';
import { mkdir, open, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { crc32, deflateRawSync, deflateSync } from 'node:zlib';
import { strToU8, zipSync } from 'fflate';
import type { Zippable } from 'fflate';
import { handMadeOdf } from '../core/test/support/handMadeOdf.ts';
import { answered, lookAtRefusal, opensAndGoes } from './campaign.ts';
import type { Target } from './campaign.ts';

/** Something beyond all measure, or made to do harm: what is sent, and where. */
export interface Extreme {
  kind: string;
  name: string;
  to: string;
  make: (folder: string) => Promise<Blob>;
  /** It becomes a document where it is taken. */
  document?: true;
  /** It takes minutes, or a great deal of room. */
  large?: true;
  /** So often at once. */
  times?: number;
  /** What must be nowhere in what is told of it afterwards. */
  nowhere?: RegExp;
}

export interface ExtremeReport {
  kind: string;
  taken: number;
  refused: number;
  says: string;
  seconds: number;
  faults: string[];
}

/** An answer that takes longer has been forgotten, in milliseconds. */
const LONGEST = 180_000;

/** Sends each, one after another, and looks at the answer and at the application; `each` hears of it at once. */
export async function extremes(
  target: Target,
  all: readonly Extreme[],
  folder: string,
  each: (report: ExtremeReport) => void = () => undefined,
): Promise<ExtremeReport[]> {
  await mkdir(folder, { recursive: true });
  const out: ExtremeReport[] = [];
  for (const extreme of all) {
    const report = await tried(target, extreme, folder);
    each(report);
    out.push(report);
  }
  return out;
}

async function tried(
  target: Target,
  { kind, name, to, make, document, times = 1, nowhere }: Extreme,
  folder: string,
): Promise<ExtremeReport> {
  const report: ExtremeReport = { kind, taken: 0, refused: 0, says: '', seconds: 0, faults: [] };
  const fault = (what: string): void => void report.faults.push(what);
  const at = `http://127.0.0.1:${target.port}`;
  const bytes = await make(folder);
  const began = performance.now();
  await Promise.all(
    Array.from({ length: times }, async () => {
      try {
        const body = new FormData();
        body.set('file', bytes, name);
        const answer = await answered(() =>
          fetch(at + to.replace('{id}', target.document), {
            method: 'POST',
            headers: { origin: at, connection: 'close' },
            body,
            signal: AbortSignal.timeout(LONGEST),
          }),
        );
        const said = await answer.text();
        if (nowhere?.test(said)) fault(`it tells what it must not: ${said.slice(0, 200)}`);
        if (answer.ok) {
          report.taken++;
          if (document) await opensAndGoes(target, JSON.parse(said) as { id: string }, fault);
          return;
        }
        report.refused++;
        report.says = (JSON.parse(said) as { message?: string }).message ?? '';
        if (answer.status >= 500) fault(`answered ${answer.status}: ${said.slice(0, 200)}`);
        else lookAtRefusal(said, fault);
      } catch (error) {
        fault(`no answer: ${(error as Error).message} ${String((error as Error).cause ?? '')}`);
      }
    }),
  );
  report.seconds = Math.round((performance.now() - began) / 100) / 10;
  const shelf = await fetch(`${at}/api/folios`).catch(() => null);
  if (!shelf?.ok) fault('the shelf does not answer any more');
  return report;
}

const blob = (bytes: Uint8Array): Blob => new Blob([Buffer.from(bytes)]);

/** A PNG (W3C, third edition) of one bit for each pixel, all of them black. */
function blackPng(width: number, height: number): Uint8Array {
  const chunk = (type: string, data: Uint8Array): Buffer => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head[8] = 1;
  const rows = Buffer.alloc(height * (1 + Math.ceil(width / 8)));
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([signature, chunk('IHDR', head), chunk('IDAT', deflateSync(rows)), chunk('IEND', new Uint8Array())]);
}

const page = (inside: string, n = 1): string => `<draw:page draw:name="p${n}" draw:master-page-name="M">${inside}</draw:page>`;
const frame = (inside: string): string => `<draw:frame svg:x="1cm" svg:y="1cm" svg:width="5cm" svg:height="5cm">${inside}</draw:frame>`;
const presentation = (body: string, more: Zippable = {}): Uint8Array => handMadeOdf({ body, kind: 'presentation' }, more);
const withPicture = (name: string, bytes: Uint8Array): Uint8Array =>
  presentation(page(frame(`<draw:image xlink:href="Pictures/${name}"/>`)), { [`Pictures/${name}`]: bytes });

/** A sound of so many bytes (RIFF WAVE; 16 bits, two channels, 48 kHz) in which there is nothing to be heard. */
function wave(bytes: number): Uint8Array {
  const out = Buffer.alloc(bytes);
  out.write('RIFF    WAVEfmt ', 0, 'latin1');
  out.writeUInt32LE(bytes - 8, 4);
  out.writeUInt32LE(16, 16);
  out.writeUInt16LE(1, 20);
  out.writeUInt16LE(2, 22);
  out.writeUInt32LE(48_000, 24);
  out.writeUInt32LE(4 * 48_000, 28);
  out.writeUInt16LE(4, 32);
  out.writeUInt16LE(16, 34);
  out.write('data', 36, 'latin1');
  out.writeUInt32LE(bytes - 44, 40);
  return out;
}

/** Packages by what is read of them first. */
const ARCHIVES = {
  efolio: { to: '/api/folios', first: 'folio.json' },
  odp: { to: '/api/folios', first: 'content.xml' },
  odg: { to: '/api/folios', first: 'content.xml' },
  docx: { to: '/api/folios/{id}/corrections', first: 'word/document.xml' },
  pptx: { to: '/api/folios/{id}/corrections', first: 'ppt/presentation.xml' },
  odt: { to: '/api/folios/{id}/corrections', first: 'content.xml' },
  xlsx: { to: '/api/folios/{id}/languages/de/return', first: 'xl/workbook.xml' },
  zip: { to: '/api/folios/{id}/files', first: 'index.html' },
} as const;

let gigabyte: { packed: Buffer; sum: number } | undefined;

/** An archive (APPNOTE 4.3) of files of a gigabyte each, in which there is nothing. */
function packedNothing(names: readonly string[]): Uint8Array {
  if (!gigabyte) {
    const nothing = Buffer.alloc(1 << 30);
    gigabyte = { packed: deflateRawSync(nothing, { level: 9 }), sum: crc32(nothing) };
  }
  const { packed, sum } = gigabyte;
  const facts = (name: string): Buffer => {
    const out = Buffer.alloc(26);
    out.writeUInt16LE(20, 0);
    out.writeUInt16LE(8, 4);
    out.writeUInt32LE(sum, 10);
    out.writeUInt32LE(packed.length, 14);
    out.writeUInt32LE(1 << 30, 18);
    out.writeUInt16LE(name.length, 22);
    return out;
  };
  const files: Buffer[] = [];
  const directory: Buffer[] = [];
  let at = 0;
  for (const name of names) {
    const local = Buffer.concat([Buffer.from('PK\x03\x04', 'latin1'), facts(name), Buffer.from(name), packed]);
    const rest = Buffer.alloc(14);
    rest.writeUInt32LE(at, 10);
    directory.push(Buffer.concat([Buffer.from('PK\x01\x02\x14\x00', 'latin1'), facts(name), rest, Buffer.from(name)]));
    files.push(local);
    at += local.length;
  }
  const central = Buffer.concat(directory);
  const end = Buffer.alloc(22);
  end.write('PK\x05\x06', 0, 'latin1');
  end.writeUInt16LE(names.length, 8);
  end.writeUInt16LE(names.length, 10);
  end.writeUInt32LE(central.length, 12);
  end.writeUInt32LE(at, 16);
  return Buffer.concat([...files, central, end]);
}

/** An archive of which the directory says that an entry is a link to a file of the machine (APPNOTE 4.3.12, made by Unix). */
function withLink(files: Record<string, Uint8Array>, name: string): Uint8Array {
  const bytes = zipSync({ ...files, [name]: [strToU8('/etc/passwd'), { os: 3, attrs: 0o120777 << 16 }] });
  return bytes;
}

const archives: Extreme[] = Object.entries(ARCHIVES).flatMap(([ending, { to, first }]): Extreme[] => {
  const name = `a.${ending}`;
  const xml = strToU8('<?xml version="1.0"?><a/>');
  const document = to === '/api/folios' ? { document: true as const } : {};
  const nowhere = /root:[x*]:0:0/;
  return [
    {
      kind: `${ending}: 3 GB in 3 MB`,
      name,
      to,
      ...document,
      large: true,
      make: async () => blob(packedNothing([first, 'b', 'c'])),
    },
    {
      kind: `${ending}: files outside its folder`,
      name,
      to,
      ...document,
      nowhere,
      make: async () =>
        blob(zipSync({ [first]: xml, '../../../../tmp/folio-escape': xml, '/tmp/folio-escape': xml, '..\\folio-escape': xml })),
    },
    {
      kind: `${ending}: a link to a file of the machine`,
      name,
      to,
      ...document,
      nowhere,
      make: async () => blob(withLink({ mimetype: xml }, first)),
    },
    {
      kind: `${ending}: 30,000 files`,
      name,
      to,
      ...document,
      make: async () =>
        blob(zipSync(Object.fromEntries([[first, xml], ...Array.from({ length: 30_000 }, (_, i) => [`f${i}`, new Uint8Array()])]))),
    },
  ];
});

const SVG = (inside: string, before = ''): Uint8Array =>
  strToU8(
    `<?xml version="1.0"?>${before}<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100" height="100">${inside}</svg>`,
  );
const drawings: Record<string, Uint8Array> = {
  'a file of the machine as an entity': SVG('<text y="20">&e;</text>', '<!DOCTYPE svg [<!ENTITY e SYSTEM "file:///etc/passwd">]>'),
  'entities that grow': SVG(
    '<text y="20">&j;</text>',
    `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">${[...'bcdefghij'].map((c, i) => `<!ENTITY ${c} "${`&${'abcdefghi'[i]};`.repeat(10)}">`).join('')}]>`,
  ),
  'a file of the machine as a picture': SVG(
    '<image width="99" height="99" xlink:href="file:///etc/passwd"/><image href="../../../etc/passwd"/>',
  ),
  'parts that show themselves': SVG('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'),
  'parts that double': SVG(
    `<g id="g0"><rect width="1" height="1"/></g>${Array.from({ length: 28 }, (_, i) => `<g id="g${i + 1}"><use href="#g${i}"/><use href="#g${i}"/></g>`).join('')}`,
  ),
  'a program': SVG('<script>fetch("http://127.0.0.1/")</script><rect width="9" height="9" onload="alert(1)"/>'),
  'a page in a page': SVG(
    '<foreignObject width="9" height="9"><iframe xmlns="http://www.w3.org/1999/xhtml" src="file:///etc/passwd"/></foreignObject>',
  ),
  'a filter without measure': SVG(
    '<filter id="f"><feGaussianBlur stdDeviation="1e9"/></filter><rect width="1e9" height="1e9" filter="url(#f)"/>',
  ),
};

const named = (kind: string, make: Extreme['make'], more: Partial<Extreme> = {}): Extreme => ({
  kind,
  name: 'a.odp',
  to: '/api/folios',
  document: true,
  make,
  ...more,
});

/** Words of which none is like another: what is all the same is refused by how much it grows. */
const paragraphs = (count: number): string =>
  Array.from({ length: count }, (_, i) => `<text:p>${((i * 2_654_435_761) % 4_294_967_296).toString(36)}</text:p>`).join('');

/** All of them; `large` those as well that take minutes, or a great deal of room. */
export const extremesOf = (large: boolean): Extreme[] =>
  [
    ...archives,
    ...Object.entries(drawings).flatMap(([what, svg]): Extreme[] => [
      { kind: `SVG: ${what}`, name: 'a.svg', to: '/api/folios/{id}/files', make: async () => blob(svg), nowhere: /root:[x*]:0:0/ },
      named(`SVG in a presentation: ${what}`, async () => blob(withPicture('a.svg', svg)), { nowhere: /root:[x*]:0:0/ }),
    ]),
    {
      kind: 'picture of 30,000 × 30,000 pixels',
      name: 'a.png',
      to: '/api/folios/{id}/files',
      make: async () => blob(blackPng(30_000, 30_000)),
    },
    named('presentation with a picture of 30,000 × 30,000 pixels', async () => blob(withPicture('a.png', blackPng(30_000, 30_000)))),
    named('40 presentations at once', async () => blob(presentation(page(frame('<draw:text-box><text:p>One</text:p></draw:text-box>')))), {
      times: 40,
    }),
    ...(
      [
        ['200,000', 200_000],
        ['1,000,000', 1_000_000],
      ] as const
    ).map(([said, count]) =>
      named(`${said} paragraphs`, async () => blob(presentation(page(frame(`<draw:text-box>${paragraphs(count)}</draw:text-box>`)))), {
        large: true,
      }),
    ),
    named('5,000 pages', async () => blob(presentation(Array.from({ length: 5000 }, (_, i) => page('', i)).join(''))), { large: true }),
    named('50,000 pages', async () => blob(presentation(Array.from({ length: 50_000 }, (_, i) => page('', i)).join(''))), { large: true }),
    named(
      '500 MB that are no package',
      async (folder) => {
        const file = join(folder, 'long.odp');
        const handle = await open(file, 'w');
        await handle.truncate(500 * 2 ** 20);
        await handle.close();
        return openAsBlob(file);
      },
      { large: true },
    ),
    named(
      'a presentation of 500 MB',
      async (folder) => {
        const sound = frame('<draw:plugin xlink:href="Media/long.wav" draw:mime-type="audio/wav"/>');
        const file = join(folder, 'sound.odp');
        await writeFile(file, presentation(page(sound), { 'Media/long.wav': [wave(500 * 2 ** 20), { level: 0 }] }));
        return openAsBlob(file);
      },
      { large: true },
    ),
  ].filter((e) => large || !e.large);
