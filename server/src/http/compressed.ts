import { constants } from 'node:zlib';
import compression from 'compression';
import type { RequestHandler } from 'express';

/** Packs what is sent where the browser takes it, quickly: it is done anew for each answer. Streams of events go as they come. */
export const compressed = (): RequestHandler =>
  compression({
    threshold: 1024,
    brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } },
    filter: (req, res) => !String(res.getHeader('content-type')).startsWith('text/event-stream') && compression.filter(req, res),
  });
