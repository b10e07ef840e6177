declare module 'wawoff2' {
  const wawoff: { compress(bytes: Buffer): Promise<Uint8Array>; decompress(bytes: Buffer): Promise<Uint8Array> };
  export default wawoff;
}
