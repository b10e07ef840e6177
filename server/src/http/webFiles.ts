import type { RequestHandler } from 'express';
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
