import yauzl from 'yauzl';

/** All files of a zip, in their order. */
export async function unzip(bytes: Uint8Array): Promise<Map<string, Uint8Array>> {
  const zip = await new Promise<yauzl.ZipFile>((done, fail) =>
    yauzl.fromBuffer(Buffer.from(bytes), { lazyEntries: true }, (error, z) => (error ? fail(error) : done(z))),
  );
  const files = new Map<string, Uint8Array>();
  await new Promise<void>((done, fail) => {
    zip.on('error', fail).on('end', done);
    zip.on('entry', (entry: yauzl.Entry) =>
      zip.openReadStream(entry, (error, stream) => {
        if (error) return fail(error);
        const chunks: Buffer[] = [];
        stream.on('data', (c: Buffer) => chunks.push(c)).on('error', fail);
        stream.on('end', () => {
          files.set(entry.fileName, new Uint8Array(Buffer.concat(chunks)));
          zip.readEntry();
        });
      }),
    );
    zip.readEntry();
  });
  return files;
}
