import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { zipSync } from 'fflate';
import { connect } from 'node:net';
import { z } from 'zod';
import { OpenedDocument, ShelfEntry } from '@elastic-folio/core/api';
import { INSIDE } from '../../campaign/campaign.ts';
import { NS, style } from '../../core/test/support/handMadeOdf.ts';
import { editRequest } from './support/editRequest.ts';
import { RunningServer } from './support/runningServer.ts';
import type { Answer } from './support/runningServer.ts';

const Problem = z.object({ code: z.string(), message: z.string().min(12), advice: z.string() });

/** A refusal in words for a person, of nobody's inside. */
function expectRefusal(answer: Answer, status?: number): void {
  expect(answer.status).toBeGreaterThanOrEqual(400);
  expect({ status: answer.status, body: answer.body.toString().slice(0, 300) }).toMatchObject({
    status: status ?? expect.not.stringMatching(''),
  });
  expect(answer.status).toBeLessThan(500);
  const { code, message, advice } = Problem.parse(answer.json());
  // Nobody had thought of it.
  expect(code).not.toBe('thread.failed');
  expect(`${message} ${advice}`).not.toMatch(INSIDE);
}

describe('what comes in broken or hostile', () => {
  let server: RunningServer;
  let flyer: string;
  let titleStory: { story: string; paragraph: string };
  beforeAll(async () => {
    server = await RunningServer.start();
    const shelf = z.array(ShelfEntry).parse((await server.get('/api/folios')).json());
    flyer = shelf.find((d) => d.title === 'Open Dome Night')!.id;
    titleStory = { story: 'list-text', paragraph: 'list-text-1' };
  }, 120_000);
  afterAll(() => server.stop());

  const now = async (): Promise<number> => OpenedDocument.parse((await server.get(`/api/folios/${flyer}?actor=anna`)).json()).seq;
  const edit = async (edits: unknown[]): Promise<Answer> =>
    server.post(`/api/folios/${flyer}/edits`, editRequest(await now(), 'anna', edits));
  const typed = (text: string) => ({
    kind: 'text.replace',
    args: {
      story: titleStory.story,
      from: { paragraphId: titleStory.paragraph, offset: 0 },
      to: { paragraphId: titleStory.paragraph, offset: 0 },
      content: [[{ type: 'span', text }]],
      newIds: [],
    },
  });
  /** A drawing by another program. */
  const odg = (body: string, automatic = ''): Buffer => {
    const files: Record<string, string> = {
      mimetype: 'application/vnd.oasis.opendocument.graphics',
      'content.xml': `<office:document-content ${NS}><office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:drawing>${body}</office:drawing></office:body></office:document-content>`,
      'styles.xml': `<office:document-styles ${NS}><office:styles/><office:automatic-styles><style:page-layout style:name="PL"><style:page-layout-properties fo:page-width="10cm" fo:page-height="10cm"/></style:page-layout></office:automatic-styles><office:master-styles><style:master-page style:name="M" style:page-layout-name="PL"/></office:master-styles></office:document-styles>`,
      'META-INF/manifest.xml': `<manifest:manifest ${NS}/>`,
    };
    return Buffer.from(zipSync(Object.fromEntries(Object.entries(files).map(([k, v]) => [k, new TextEncoder().encode(v)]))));
  };
  const page = (inside: string): string => `<draw:page draw:name="one" draw:master-page-name="M">${inside}</draw:page>`;
  const box = (text: string, styleName = 'g'): string =>
    page(
      `<draw:frame draw:style-name="${styleName}" svg:x="1cm" svg:y="1cm" svg:width="5cm" svg:height="5cm"><draw:text-box>${text}</draw:text-box></draw:frame>`,
    );

  test.each(['NUL \0 within', 'a lone \ud800 surrogate', '\udc00'])(
    'text with %j is taken without it, or refused with a sentence',
    async (text) => {
      for (const e of [typed(text), { kind: 'document.metadata', args: { title: text } }]) {
        const answer = await edit([e]);
        if (answer.status !== 200) expectRefusal(answer);
      }
      // And the document is there as before.
      expect((await server.get(`/api/folios/${flyer}?actor=anna`)).status).toBe(200);
    },
  );

  test.each(['__proto__', 'constructor', 'toString', 'hasOwnProperty'])('%s as an id names nothing, and changes nothing', async (id) => {
    for (const e of [
      { kind: 'item.alt', args: { spread: id, item: id, alt: 'x' } },
      { kind: 'item.alt', args: { spread: 'front', item: id, alt: 'x' } },
      { kind: 'paragraph.style', args: { story: id, paragraph: id, style: id } },
      { kind: 'paragraph.style', args: { ...titleStory, style: id } },
      { kind: 'recipe.set', args: { id, output: id, version: 1, name: id, settings: {} } },
      { kind: 'recipe.remove', args: { id } },
    ]) {
      const answer = await edit([e]);
      if (answer.status !== 200) expectRefusal(answer);
    }
    for (const path of [
      `/api/folios/${id}`,
      `/api/folios/${flyer}/media/${id}`,
      `/api/folios/${flyer}/fonts/${id}`,
      `/api/runs/${id}/ledger`,
      `/api/folios/${flyer}/languages/${id}/count`,
    ])
      expectRefusal(await server.get(path));
    const parts = await server.post(`/api/folios/${flyer}/parts`, { paths: [id, `spreads/${id}.json`, `stories/${id}.json`] });
    expect(parts.status).toBeLessThan(500);
    expect(({} as Record<string, unknown>)['alt']).toBeUndefined();
  });

  test('requests that lack something, or have something else in its place, are told what in plain words', async () => {
    for (const [path, body] of [
      [`/api/folios/${flyer}/runs`, {}],
      [`/api/folios/${flyer}/runs`, { recipe: 7 }],
      [`/api/folios/${flyer}/runs`, []],
      [`/api/folios/${flyer}/edits`, { base: 'x', actor: 'a', edits: [] }],
      [`/api/folios/${flyer}/edits`, { base: 0, actor: 'a', edits: [{ uid: 'u', burst: 'b', edit: { kind: 'item.fly' } }] }],
      [
        `/api/folios/${flyer}/edits`,
        { base: 0, actor: 'a', edits: [{ uid: 'u', burst: 'b', edit: { kind: 'document.metadata', args: { title: 5 } } }] },
      ],
      [`/api/folios/${flyer}/rehearsals`, { page: 1e9 }],
      [`/api/folios/${flyer}/published`, { recipe: null }],
      ['/api/role-sets', { name: '' }],
      ['/api/recipes/read', { called: 'x', text: '{' }],
    ] as const)
      expectRefusal(await server.post(path, body));
  });

  const language = (what: string): string => `/api/folios/${flyer}/languages/de/${what}`;
  const PO_HEAD = 'msgid ""\nmsgstr ""\n"Content-Type: text/plain; charset=UTF-8\\n"\n"Language: de\\n"\n\n';
  test.each([
    ['a PO file without its header', 'back.po', 'msgid "a"\nmsgstr "b"\n'],
    ['a PO file that is cut off', 'back.po', `${PO_HEAD}msgctxt "title-text-1"\nmsgid "Open`],
    ['a PO file of nothing', 'back.po', ''],
    ['a PO file with a NUL', 'back.po', `${PO_HEAD}msgid "a\0b"\nmsgstr "c\0d"\n`],
    [
      'XLIFF that is cut off',
      'back.xlf',
      '<?xml version="1.0"?><xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" version="2.1" srcLang="en"><file id="f"><unit',
    ],
    [
      'XLIFF with an entity bomb',
      'back.xlf',
      '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;">]><xliff version="1.2">&b;</xliff>',
    ],
    [
      'XLIFF 10,000 elements deep',
      'back.xlf',
      `<?xml version="1.0"?><xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" version="2.1" srcLang="en">${'<g>'.repeat(10_000)}`,
    ],
    ['a table that is no zip', 'back.xlsx', 'PK\x03\x04 no'],
    ['a CSV of NULs', 'back.csv', '\0'.repeat(5000)],
    ['a TMX of another thing', 'back.tmx', '<html/>'],
    ['a file of no kind', 'back.exe', 'MZ'],
  ])('%s is refused with a sentence, or comes back without translations', async (_what, name, text) => {
    const answer = await server.uploadTo(language('return'), name, Buffer.from(text));
    if (answer.status !== 200) expectRefusal(answer);
  });

  test.each([
    ['/api/terms/en/de/file', 'terms.tbx'],
    ['/api/memory/en/de', 'memory.tmx'],
    ['/api/fonts', 'font.ttf'],
  ])('%s takes no rubbish', async (path, name) => {
    for (const text of ['', '<', '<tmx', '\0\0\0', 'x'.repeat(100_000), '<?xml version="1.0"?><a>'.repeat(2000)])
      expectRefusal(await server.uploadTo(path, name, Buffer.from(text)));
  });

  test('a form without a boundary, without a file, with two, and one that is no form', async () => {
    const to = '/api/folios';
    expectRefusal(await server.ask('POST', to, Buffer.from('--x\r\n'), { 'content-type': 'multipart/form-data' }));
    expectRefusal(await server.ask('POST', to, Buffer.from('--x--\r\n'), { 'content-type': 'multipart/form-data; boundary=x' }));
    expectRefusal(await server.ask('POST', to, Buffer.from('nothing of the kind'), { 'content-type': 'multipart/form-data; boundary=x' }));
    expectRefusal(await server.ask('POST', to, Buffer.from('{}'), { 'content-type': 'application/json' }));
    expectRefusal(
      await server.ask('POST', to, Buffer.from('--x\r\ncontent-disposition: form-data; name="file"; filename="a.odg"\r\n'), {
        'content-type': 'multipart/form-data; boundary=x',
      }),
    );
  });

  test.each([
    [
      'a chain of 20,000 styles',
      () =>
        odg(
          box('<text:p text:style-name="P19999">Words</text:p>'),
          style('g', 'graphic', '') +
            Array.from({ length: 20_000 }, (_, i) => style(`P${i}`, 'paragraph', '', i ? `P${i - 1}` : '')).join(''),
        ),
    ],
    [
      'a ring of styles',
      () =>
        odg(
          box('<text:p text:style-name="A">Words</text:p>'),
          style('g', 'graphic', '') + style('A', 'paragraph', '', 'B') + style('B', 'paragraph', '', 'A'),
        ),
    ],
    [
      '100,000 tab stops',
      () =>
        odg(
          box('<text:p text:style-name="A">a<text:tab/>b</text:p>'),
          `${style('g', 'graphic', '')}${style('A', 'paragraph', `<style:paragraph-properties><style:tab-stops>${Array.from({ length: 100_000 }, (_, i) => `<style:tab-stop style:position="${i / 1000}cm"/>`).join('')}</style:tab-stops></style:paragraph-properties>`)}`,
        ),
    ],
    [
      'a width of 20,000 digits',
      () => odg(page(`<draw:rect svg:x="1cm" svg:y="1cm" svg:width="${'1'.repeat(20_000)}" svg:height="5cm"/>`)),
    ],
    [
      'ids that are names of the language',
      () =>
        odg(
          `${page('')}<draw:page draw:name="__proto__" xml:id="__proto__" draw:master-page-name="M"><draw:rect draw:name="constructor" xml:id="constructor" svg:x="1cm" svg:y="1cm" svg:width="1cm" svg:height="5cm"/></draw:page>`,
        ),
    ],
    ['no pages', () => odg('')],
    ['groups 3,000 deep', () => odg(page('<draw:g>'.repeat(3000) + '</draw:g>'.repeat(3000)))],
  ])(
    'a drawing with %s comes in, or is refused with a sentence',
    async (_what, make) => {
      const answer = await server.upload('strange.odg', make());
      if (answer.status !== 200) return expectRefusal(answer);
      const { id } = answer.json<{ id: string }>();
      expect((await server.get(`/api/folios/${id}?actor=a`)).status).toBe(200);
      expect((await server.get(`/api/folios/${id}/intake`)).status).toBe(200);
      expect((await server.get('/api/folios')).status).toBe(200);
      expect((await server.ask('DELETE', `/api/folios/${id}`)).status).toBe(200);
    },
    120_000,
  );

  test('a request that never ends, and one that is no HTTP, are let go; others are answered meanwhile', async () => {
    const sockets = [1, 2].map(() => connect(server.port, '127.0.0.1'));
    sockets[0]!.write('POST /api/folios HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-length: 1000000\r\n\r\nabc');
    sockets[1]!.write('\x16\x03\x01\x02\x00\x01\x00\x01\xfc\x03\x03');
    expect((await server.get('/api/folios')).status).toBe(200);
    for (const s of sockets) s.destroy();
  });
});
