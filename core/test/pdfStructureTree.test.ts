import { describe, expect, test } from '@jest/globals';
import type { PDFDocument } from '@cantoo/pdf-lib';
import { openFile } from '../src/ledger/pdf/pdfFile.ts';
import { structureTrees } from '../src/ledger/pdf/structureTree.ts';

/** A file of two pages with these objects of a structure tree; its root is object 10. Readers find objects without a table of them. */
const file = (objects: Record<number, string>): Promise<PDFDocument> =>
  openFile(
    new TextEncoder().encode(
      [
        '%PDF-1.7',
        '1 0 obj\n<< /Type /Catalog /Pages 2 0 R /StructTreeRoot 10 0 R >>\nendobj',
        '2 0 obj\n<< /Type /Pages /Kids [3 0 R 4 0 R] /Count 2 >>\nendobj',
        ...[3, 4].map((n) => `${n} 0 obj\n<< /Type /Page /Parent 2 0 R /MediaBox [0 0 100 100] >>\nendobj`),
        ...Object.entries(objects).map(([n, o]) => `${n} 0 obj\n<< ${o} >>\nendobj`),
        'trailer\n<< /Root 1 0 R /Size 99 >>\n%%EOF',
      ].join('\n'),
    ),
  );

describe('the structure tree of a PDF, by pages (ISO 32000-1, 14.7)', () => {
  test('a paragraph over two pages is on both, its content in the order of the whole', async () => {
    const trees = structureTrees(
      await file({
        10: '/Type /StructTreeRoot /K 11 0 R /RoleMap << /Lead /P >>',
        11: '/S /Document /P 10 0 R /K [12 0 R 13 0 R]',
        12: '/S /Lead /P 11 0 R /Pg 3 0 R /Lang (de) /K [0 << /Type /MCR /Pg 4 0 R /MCID 7 >>]',
        13: '/S /P /P 11 0 R /Pg 3 0 R /K 1',
      }),
    );
    expect(trees).toEqual([
      [
        {
          role: 'Document',
          children: [
            { role: 'P', lang: 'de', children: [{ mark: 0, at: 0 }] },
            { role: 'P', children: [{ mark: 1, at: 2 }] },
          ],
        },
      ],
      [{ role: 'Document', children: [{ role: 'P', lang: 'de', children: [{ mark: 7, at: 1 }] }] }],
    ]);
  });

  test('cells without content are cells; what a text in it looks like is not mistaken for the tree', async () => {
    const trees = structureTrees(
      await file({
        10: '/Type /StructTreeRoot /K [11 0 R 15 0 R]',
        11: '/S /Table /P 10 0 R /K 12 0 R',
        12: '/S /TR /P 11 0 R /K [13 0 R 14 0 R]',
        13: '/S /TH /P 12 0 R /K []',
        14: '/S /TD /P 12 0 R /Pg 3 0 R /K 0',
        15: '/S /Figure /P 10 0 R /Pg 4 0 R /Alt (A key /K [9 0 R] \\(of brass\\)) /K 0',
      }),
    );
    expect(trees).toEqual([
      [
        {
          role: 'Table',
          children: [
            {
              role: 'TR',
              children: [
                { role: 'TH', children: [] },
                { role: 'TD', children: [{ mark: 0, at: 0 }] },
              ],
            },
          ],
        },
      ],
      [{ role: 'Figure', alt: 'A key /K [9 0 R] (of brass)', children: [{ mark: 0, at: 1 }] }],
    ]);
  });

  test('letters in UTF-16 are read, and stand for shapes where there is no alternative', async () => {
    const trees = structureTrees(
      await file({ 10: '/Type /StructTreeRoot /K 11 0 R', 11: '/S /Span /P 10 0 R /Pg 3 0 R /ActualText <FEFF00C9263E> /K 0' }),
    );
    expect(trees[0]).toEqual([{ role: 'Span', alt: 'É☾', children: [{ mark: 0, at: 0 }] }]);
  });

  test('a tree that bites its tail, one that names what is not there, and a file without any: what can be told is', async () => {
    const trees = structureTrees(
      await file({
        10: '/Type /StructTreeRoot /K [11 0 R 90 0 R 3]',
        11: '/S /Sect /P 10 0 R /K [12 0 R 91 0 R]',
        12: '/S /P /P 11 0 R /Pg 3 0 R /K [0 11 0 R << /Type /MCR /Pg 92 0 R /MCID 1 >>]',
      }),
    );
    expect(trees).toEqual([[{ role: 'Sect', children: [{ role: 'P', children: [{ mark: 0, at: 0 }] }] }], []]);
    expect(structureTrees(await file({}))).toEqual([[], []]);
  });
});
