/** A WAVE file of 16-bit samples in one channel (RIFF; Multimedia Programming Interface and Data Specifications 1.0), by hand. */
export function waveOf(samples: readonly number[], rate: number): Uint8Array {
  const file = Buffer.alloc(44 + samples.length * 2);
  file.write('RIFF', 0);
  file.writeUInt32LE(36 + samples.length * 2, 4);
  file.write('WAVEfmt ', 8);
  file.writeUInt32LE(16, 16);
  // Plain samples, one channel.
  file.writeUInt16LE(1, 20);
  file.writeUInt16LE(1, 22);
  file.writeUInt32LE(rate, 24);
  file.writeUInt32LE(rate * 2, 28);
  file.writeUInt16LE(2, 32);
  file.writeUInt16LE(16, 34);
  file.write('data', 36);
  file.writeUInt32LE(samples.length * 2, 40);
  samples.forEach((s, i) => file.writeInt16LE(Math.round(s * 32767), 44 + i * 2));
  return new Uint8Array(file);
}

/** A tone of so many beats a second. */
export const tone = (beats: number, seconds: number, rate: number): number[] =>
  Array.from({ length: Math.round(seconds * rate) }, (_, i) => 0.5 * Math.sin((2 * Math.PI * beats * i) / rate));
