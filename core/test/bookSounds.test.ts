import { existsSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import { Folio, Item } from '../src/index.ts';
import { lookIntoPlayed } from '../src/read/media/lookIntoPlayed.ts';
import { asMp3 } from '../src/write/book/mp3.ts';
import { EPUBCHECK, sayOfEpubcheck } from './support/epubcheck.ts';
import { motionFolio } from './support/motionFolio.ts';
import { asSample, make } from './support/samples.ts';
import { tone, waveOf } from './support/wave.ts';
import { ofToday } from './support/ofToday.ts';

const WAVE = waveOf(tone(440, 2, 11_025), 11_025);
const OGG = new TextEncoder().encode('OggS of Vorbis');

/** A bell as plain samples, and a song that is packed as no book may hold it. */
const folio = Folio.parse(
  produce(motionFolio(), (d) => {
    for (const [id, name, mediaType, codec, bytes, y] of [
      ['bell', 'bell.wav', 'audio/wav', 'pcm-s16', WAVE, 300],
      ['song', 'song.ogg', 'audio/ogg', 'vorbis', OGG, 340],
    ] as const) {
      d.head.media[id] = { id, name, file: `media/${name}`, mediaType, codec, sha256: 'a'.repeat(64), bytes: bytes.length };
      d.spreads['s']!.items[`${id}-item`] = Item.parse({
        ...{ kind: 'media', id: `${id}-item`, layer: 'l', transform: [1, 0, 0, 1, 20, y], size: { width: 60, height: 20 } },
        ...{ media: id, alt: `The ${id}`, transcript: `What the ${id} says` },
      });
      d.spreads['s']!.order.push(`${id}-item`);
    }
  }),
);
const media = async (id: string): Promise<Uint8Array> => (id === 'bell' ? WAVE : OGG);

describe('sounds in books are core media types (EPUB 3.3, 3.2)', () => {
  test.each(ofToday(['epub-fixed', 'epub'], 1, (id) => id))(
    '%s: plain samples become an MP3, what cannot be made one is left out and told',
    async (output) => {
      const made = await make(asSample(folio), output, {}, folio, { media });
      const of = (id: string): unknown => {
        const e = made.ledger.find((x) => x.subject.id === id && x.subject.aspect === 'media')!;
        return [e.outcome, e.code, e.check];
      };
      expect(of('bell-item')).toEqual(['adapted', 'sound.asMp3', 'confirmed']);
      expect(of('song-item')).toEqual(['dropped', 'sound.notInBooks', 'uncheckable']);
      expect(made.valid).toBe(true);
      const book = await made.read('book.epub');
      const sounds = Object.entries(unzipSync(book)).filter(([path]) => /\.(mp3|wav|ogg)$/.test(path));
      expect(
        sounds.map(([path]) =>
          path
            .replace(/-[0-9a-f]+\./, '.')
            .split('/')
            .pop(),
        ),
      ).toEqual(['bell.mp3']);
      expect(await lookIntoPlayed(sounds[0]![1])).toMatchObject({ codec: 'mp3' });
      if (existsSync(EPUBCHECK)) expect(await sayOfEpubcheck(book)).toContain('No errors or warnings');
    },
  );

  test('an MP3 lasts as long as its samples, at a rate that MP3 has', async () => {
    for (const rate of [11_025, 44_100, 96_000]) {
      const mp3 = await asMp3(waveOf(tone(440, 2, rate), rate), new AbortController().signal);
      // Encoders begin and end with some silence: at most four frames of 1152 samples.
      expect(Math.abs((await lookIntoPlayed(mp3)).seconds! - 2)).toBeLessThan((4 * 1152) / Math.min(rate, 44_100));
    }
  });

  test('a WAVE file that is none is told, not made into noise', () =>
    expect(asMp3(new TextEncoder().encode('RIFF....WAVE'), new AbortController().signal)).rejects.toThrow());
});
