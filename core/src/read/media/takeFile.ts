import { open, readFile, stat } from 'node:fs/promises';
import type { MediaFile } from '../../folio/head.ts';
import { FolioError } from '../../ports/ports.ts';
import type { BlobStore, PicturePort } from '../../ports/ports.ts';
import { openArchive } from '../../packages/archive.ts';
import { KEPT } from '../odf/pictureFile.ts';
import { lookIntoPlayed } from './lookIntoPlayed.ts';
import { beginsAs, PLAYED } from './played.ts';

const MIB = 2 ** 20;
/** The most that a file of each kind may hold: more would make a publication that nobody can open on the way. */
const MOST = { picture: 100 * MIB, played: 500 * MIB, captions: 5 * MIB, bundle: 100 * MIB, own: 5 * MIB } as const;
/** Files that designers add to a web edition by themselves: what they are called, and what they are. */
const OWN: Record<string, string> = {
  css: 'text/css',
  js: 'text/javascript',
  json: 'application/json',
  txt: 'text/plain',
  xml: 'application/xml',
};

/** A folder of files, unpacked. */
export const BUNDLE_LIMITS = { entries: 2000, expandedBytes: 300 * MIB, ratio: 200, partBytes: 100 * MIB };

interface TakenFile {
  /** The file as it lies on disk, and what it was called. */
  file: string;
  name: string;
  /** What it is called in the document. */
  id: string;
  blobs: Pick<BlobStore, 'putFile'>;
  pictures: Pick<PicturePort, 'info' | 'decodes'>;
}

/**
 * Stores a picture, film, sound, captions, a zipped folder or a file of own code, and says what it is. A FolioError says what is wrong with a file
 * that is too large, of no kind that outputs can carry, or not what its name says.
 */
export async function takeFile({ file, name, id, blobs, pictures }: TakenFile): Promise<MediaFile> {
  const extension = /\.([A-Za-z0-9]+)$/.exec(name)?.[1]?.toLowerCase() ?? '';
  const { size } = await stat(file);
  const stored = async (mediaType: string, more: Partial<MediaFile> = {}, end = extension): Promise<MediaFile> => {
    const { sha256, bytes } = await blobs.putFile(file);
    return { id, name, file: `media/${id}.${end}`, mediaType, sha256, bytes, ...more };
  };
  if (PLAYED[extension] !== undefined) {
    const mediaType = PLAYED[extension];
    within(name, size, 'played');
    if (!beginsAs(mediaType, await headOf(file))) throw notWhat(name, mediaType.startsWith('audio/') ? 'sound' : 'film');
    return stored(mediaType, await lookIntoPlayed(file));
  }
  if (extension === 'vtt') {
    within(name, size, 'captions');
    // WebVTT, section 4.1: the signature, after a byte order mark or not, then a space, a tab or the end of the line.
    if (!/^\uFEFF?WEBVTT([ \t\r\n]|$)/.test(await readFile(file, 'utf8'))) throw notWhat(name, 'file of captions (WebVTT)');
    return stored('text/vtt');
  }
  if (extension === 'zip') {
    within(name, size, 'bundle');
    const archive = await openArchive(file, BUNDLE_LIMITS);
    try {
      let hasPage = false;
      for await (const entry of archive.entries) hasPage ||= /\.x?html?$/i.test(entry.path);
      if (!hasPage)
        throw new FolioError('bundle.noPage', `“${name}” holds no page of HTML.`, 'Pack the folder that has its index.html in it.');
    } finally {
      archive.close();
    }
    return stored('application/zip');
  }
  const own = OWN[extension];
  if (own !== undefined) {
    within(name, size, 'own');
    if (!isText(await readFile(file))) throw notWhat(name, 'text in UTF-8');
    return stored(own);
  }
  within(name, size, 'picture');
  const info = await pictures.info(new Uint8Array(await readFile(file))).catch((error: unknown) => {
    // A picture of more pixels than can be worked with is one all the same: that is said, not that it is none.
    if (error instanceof FolioError && error.code === 'picture.tooLarge') throw tooManyPixels(name, error);
    return null;
  });
  const kind = info && KEPT[info.format];
  if (!info || !kind)
    throw new FolioError(
      'media.kind',
      `“${name}” is of no kind that outputs can show.`,
      'Use PNG, JPEG or WebP for pictures, MP4, WebM or Ogg for films and sounds, WAV or MP3 for sounds, WebVTT for captions.',
    );
  if (!(await pictures.decodes(new Uint8Array(await readFile(file)))))
    throw new FolioError(
      'media.damaged',
      `“${name}” is damaged: it cannot be shown whole.`,
      'Look whether it opens elsewhere, and save it anew.',
    );
  return stored(kind.mediaType, { width: info.width, height: info.height, colours: info.colours }, kind.extension);
}

const tooManyPixels = (name: string, { message, advice }: FolioError): FolioError =>
  new FolioError('media.tooLarge', `“${name}” cannot be taken: ${message}.`, advice);

function within(name: string, size: number, kind: keyof typeof MOST): void {
  if (size > MOST[kind])
    throw new FolioError(
      'media.tooLarge',
      `“${name}” has ${Math.ceil(size / MIB)} MB; at most ${MOST[kind] / MIB} MB can be taken.`,
      'Make it smaller, or put it on the web and show its address.',
    );
}

function isText(bytes: Uint8Array): boolean {
  try {
    return !new TextDecoder('utf-8', { fatal: true }).decode(bytes).includes('\0');
  } catch {
    return false;
  }
}

const notWhat = (name: string, what: string): FolioError =>
  new FolioError('media.notWhat', `“${name}” is no ${what}, whatever its name says.`, 'Look whether it opens elsewhere, and save it anew.');

async function headOf(file: string): Promise<Uint8Array> {
  const handle = await open(file, 'r');
  try {
    const { buffer, bytesRead } = await handle.read(new Uint8Array(16), 0, 16, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}
