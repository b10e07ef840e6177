/** How samples are packed in a WAVE file that can be read here, as numbers from −1 to 1 (all have the low byte first). */
const SAMPLES: Record<string, { bytes: number; at: (view: DataView, offset: number) => number }> = {
  'pcm-u8': { bytes: 1, at: (v, o) => (v.getUint8(o) - 128) / 128 },
  'pcm-s16': { bytes: 2, at: (v, o) => v.getInt16(o, true) / 2 ** 15 },
  'pcm-s24': { bytes: 3, at: (v, o) => (v.getUint16(o, true) + v.getInt8(o + 2) * 2 ** 16) / 2 ** 23 },
  'pcm-s32': { bytes: 4, at: (v, o) => v.getInt32(o, true) / 2 ** 31 },
  'pcm-f32': { bytes: 4, at: (v, o) => v.getFloat32(o, true) },
};

/** Whether a sound that is packed so can be made an MP3 here. */
export const canBeMp3 = (codec: string | undefined): boolean => codec !== undefined && codec in SAMPLES;

/** Rates of MP3 (ISO/IEC 11172-3 and 13818-3); others are brought to the usual one. */
const RATES = [8000, 11025, 12000, 16000, 22050, 24000, 32000, 44100, 48000] as const;
type Rate = (typeof RATES)[number];
/** Bits a second for each channel: near to what nobody tells from the original (common practice). */
const BITS = { 1: 96, 2: 192 } as const;

/** A WAVE file of plain samples as an MP3: its first two channels. Throws where it cannot be read. */
export async function asMp3(wave: Uint8Array, signal: AbortSignal): Promise<Uint8Array> {
  const { BufferSource, EncodedPacketSink, Input, WAVE } = await import('mediabunny');
  const { createMp3Encoder } = await import('wasm-media-encoders');
  const input = new Input({ formats: [WAVE], source: new BufferSource(wave) });
  try {
    const track = await input.getPrimaryAudioTrack();
    const [codec, count, rate] = track
      ? await Promise.all([track.getCodec(), track.getNumberOfChannels(), track.getSampleRate()])
      : [null, 0, 0];
    const sample = SAMPLES[codec ?? ''];
    if (!track || !sample || count < 1) throw new Error('no plain samples');
    const channels = count > 1 ? 2 : 1;
    const encoder = await createMp3Encoder();
    encoder.configure({
      sampleRate: rate,
      outputSampleRate: RATES.find((r): r is Rate => r === rate) ?? 44_100,
      channels,
      bitrate: BITS[channels],
    });
    const parts: Buffer[] = [];
    for await (const { data } of new EncodedPacketSink(track).packets()) {
      signal.throwIfAborted();
      const view = new DataView(data.buffer, data.byteOffset, data.byteLength);
      const frames = Math.floor(data.byteLength / (sample.bytes * count));
      const heard = Array.from({ length: channels }, (_, c) =>
        Float32Array.from({ length: frames }, (_, i) => sample.at(view, (i * count + c) * sample.bytes)),
      );
      // What the encoder gives is overwritten by what it gives next.
      parts.push(Buffer.from(encoder.encode(heard)));
    }
    parts.push(Buffer.from(encoder.finalize()));
    return new Uint8Array(Buffer.concat(parts));
  } finally {
    input.dispose();
  }
}
