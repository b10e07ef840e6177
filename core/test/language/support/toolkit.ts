import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where Debian has the library. */
export const TOOLKIT = existsSync('/usr/lib/python3/dist-packages/translate/__init__.py');

/** A text as translate-toolkit, a library that had no part in making it, sees it. */
export interface SeenByToolkit {
  id: string;
  source: string;
  target: string;
  approved?: boolean;
  notes: string;
}

const SCRIPT = `
import sys, json
from translate.storage import factory
store = factory.getobject(sys.argv[1])
out = []
for u in store.units:
    if u.isheader(): continue
    out.append({'id': u.getcontext() if sys.argv[1].endswith('.po') else (u.getid() or ''), 'source': str(u.source or ''), 'target': str(u.target or ''), 'approved': bool(u.isapproved()) if hasattr(u, 'isapproved') else None, 'notes': u.getnotes()})
print(json.dumps({'source': store.getsourcelanguage() if hasattr(store, 'getsourcelanguage') else None, 'target': store.gettargetlanguage() if hasattr(store, 'gettargetlanguage') else None, 'units': out}))
`;

export async function readByToolkit(
  name: string,
  bytes: Uint8Array,
): Promise<{ source: string | null; target: string | null; units: SeenByToolkit[] }> {
  const folder = await mkdtemp(join(tmpdir(), 'toolkit-'));
  try {
    await writeFile(join(folder, 'read.py'), SCRIPT);
    await writeFile(join(folder, name), bytes);
    return JSON.parse(
      execFileSync('/usr/bin/python3', [join(folder, 'read.py'), join(folder, name)], { encoding: 'utf8', maxBuffer: 1 << 28 }),
    ) as never;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
