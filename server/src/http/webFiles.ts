import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import type { Request, RequestHandler, Response } from 'express';
import serveStatic from 'express-static-gzip';

/** The files of the web application, as they were packed when it was built. Their names change with what is in them. */
export const webFiles = (folder: string): RequestHandler =>
  serveStatic(folder, {
    enableBrotli: true,
    orderPreference: ['br'],
    index: false,
    serveStatic: {
      maxAge: '1y',
      immutable: true,
      setHeaders: (res, file) => void (/\.wasm(\.br)?$/.test(file) && res.setHeader('Content-Type', 'application/wasm')),
    },
  });

/** Answers with a font that comes with the program, packed when it was built; false where the browser or the build has none such. */
export async function sendPackedFont(root: string, file: string, req: Request, res: Response): Promise<boolean> {
  if (!req.acceptsEncodings('br')) return false;
  const packed = await readFile(join(root, 'dist', 'fonts', `${basename(file)}.br`)).catch(() => null);
  if (!packed) return false;
  res.setHeader('Content-Encoding', 'br');
  res.setHeader('Vary', 'Accept-Encoding');
  res.type('font/ttf').send(packed);
  return true;
}
