import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where Debian has the library. */
export const PYTHON_DOCX = existsSync('/usr/lib/python3/dist-packages/docx/__init__.py');

export interface SeenByPython {
  paragraphs: { style: string; text: string; bold: boolean[]; sizes: (number | null)[] }[];
  styles: { name: string; type: string; base: string | null; size: number | null }[];
  tables: { rows: number; columns: number; cells: string[][] }[];
  shapes: { width: number; height: number }[];
  sections: { width: number; height: number; left: number; columns: string | null }[];
  title: string;
}

const SCRIPT = `
import sys, json, docx
from docx.enum.style import WD_STYLE_TYPE
d = docx.Document(sys.argv[1])
def num(s): return s._sectPr.xpath('./w:cols/@w:num')
out = {
  'title': d.core_properties.title,
  'paragraphs': [{'style': p.style.name, 'text': p.text, 'bold': [bool(r.bold) for r in p.runs], 'sizes': [r.font.size.pt if r.font.size else None for r in p.runs]} for p in d.paragraphs],
  'styles': [{'name': s.name, 'type': str(s.type).split('.')[-1].split(' ')[0], 'base': getattr(s, 'base_style', None).name if getattr(s, 'base_style', None) is not None else None, 'size': s.font.size.pt if hasattr(s, 'font') and s.font.size else None} for s in d.styles],
  'tables': [{'rows': len(t.rows), 'columns': len(t.columns), 'cells': [[c.text for c in r.cells] for r in t.rows]} for t in d.tables],
  'shapes': [{'width': s.width, 'height': s.height} for s in d.inline_shapes],
  'sections': [{'width': s.page_width, 'height': s.page_height, 'left': s.left_margin, 'columns': (num(s) or [None])[0]} for s in d.sections],
}
print(json.dumps(out))
`;

/** What python-docx, a library that had no part in making it, finds in a text document. */
export async function readByPython(docx: Uint8Array): Promise<SeenByPython> {
  const folder = await mkdtemp(join(tmpdir(), 'python-docx-'));
  try {
    await writeFile(join(folder, 'read.py'), SCRIPT);
    await writeFile(join(folder, 'x.docx'), docx);
    return JSON.parse(
      execFileSync('/usr/bin/python3', [join(folder, 'read.py'), join(folder, 'x.docx')], { encoding: 'utf8', maxBuffer: 1 << 28 }),
    ) as SeenByPython;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
