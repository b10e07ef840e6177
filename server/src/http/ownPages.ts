import helmet from 'helmet';
import type { RequestHandler } from 'express';

/**
 * What the application’s own pages may load (CSP 3), in whichever origin they are shown: themselves, their typesetter, pictures and fonts
 * that they make, and nothing from elsewhere. `frames`: origins that they may show inside; none where there are none.
 */
export const ownPages = ({ frames = [] }: { frames?: string[] } = {}): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'", 'data:', 'blob:'],
        connectSrc: ["'self'"],
        workerSrc: ["'self'", 'blob:'],
        frameSrc: frames.length ? frames : ["'none'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    crossOriginEmbedderPolicy: false,
    hsts: false,
    // For browsers that know no policy as above, or nothing at all today: they would make up much of small answers.
    xDnsPrefetchControl: false,
    xDownloadOptions: false,
    xFrameOptions: false,
    xPermittedCrossDomainPolicies: false,
    xXssProtection: false,
    // An address may hold the key to a job: it is told to nobody (helmet’s own choice as well).
    referrerPolicy: { policy: 'no-referrer' },
  });
