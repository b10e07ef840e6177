import { BufferTarget, EncodedPacket, EncodedVideoPacketSource, Output, WebMOutputFormat } from 'mediabunny';
import sharp from 'sharp';

/**
 * A silent film out of drawings, as a WebM. A lossy WebP picture is one key frame of VP8 (RFC 9649, section 2.5), so each drawing
 * becomes a frame as it is.
 */
export async function film(drawings: readonly string[], framesPerSecond: number, width: number, height: number): Promise<Uint8Array> {
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const source = new EncodedVideoPacketSource('vp8');
  output.addVideoTrack(source, { frameRate: framesPerSecond });
  await output.start();
  const pictures = drawings.map((drawing) =>
    sharp(Buffer.from(drawing)).resize(width, height).flatten({ background: '#000' }).webp({ quality: 62, effort: 2 }).toBuffer(),
  );
  for (const [i, webp] of (await Promise.all(pictures)).entries()) {
    const packet = new EncodedPacket(keyFrameOf(webp), 'key', i / framesPerSecond, 1 / framesPerSecond);
    await source.add(packet, { decoderConfig: { codec: 'vp8', codedWidth: width, codedHeight: height } });
  }
  await output.finalize();
  return new Uint8Array(target.buffer!);
}

/** The chunk of a WebP file that holds its picture. */
function keyFrameOf(webp: Buffer): Uint8Array {
  for (let at = 12; at + 8 <= webp.length;) {
    const size = webp.readUInt32LE(at + 4);
    if (webp.toString('latin1', at, at + 4) === 'VP8 ') return new Uint8Array(webp.subarray(at + 8, at + 8 + size));
    at += 8 + size + (size % 2);
  }
  throw new Error('the drawing became no lossy WebP');
}
