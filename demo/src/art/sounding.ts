import { createMp3Encoder } from 'wasm-media-encoders';

const RATE = 44_100;
/** Partials of a bell by their share of the strike note, how loud they are, and how fast they fade (common practice of founders). */
const PARTIALS = [
  [0.5, 0.5, 0.5],
  [1, 1, 0.9],
  [1.2, 0.6, 1.4],
  [1.5, 0.4, 1.9],
  [2, 0.55, 2.2],
  [2.6, 0.25, 3.5],
] as const;

/** A small bell that is struck at some seconds, as an MP3. Nothing of it is recorded. */
export async function bell(seconds: number, strikes: readonly number[], note = 523): Promise<Uint8Array> {
  const samples = new Float32Array(Math.round(seconds * RATE));
  for (const at of strikes)
    for (const [share, loud, fade] of PARTIALS)
      for (let i = Math.round(at * RATE); i < samples.length; i++) {
        const t = i / RATE - at;
        samples[i]! += 0.14 * loud * Math.exp(-fade * t) * Math.sin(2 * Math.PI * note * share * t) * Math.min(1, t * 400);
      }
  const encoder = await createMp3Encoder();
  encoder.configure({ sampleRate: RATE, channels: 1, bitrate: 64 });
  // What the encoder gives is overwritten by what it gives next.
  const parts = [Buffer.from(encoder.encode([samples])), Buffer.from(encoder.finalize())];
  return new Uint8Array(Buffer.concat(parts));
}
