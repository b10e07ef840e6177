import { createHash } from 'node:crypto';

/** Bytes at the beginning of a font that are scrambled (EPUB 3.3, 4.4 “Font obfuscation”). */
const SCRAMBLED = 1040;

/** A font scrambled with a book’s identifier, so that it cannot be taken out and installed: exclusive or with its SHA-1. */
export function scramble(font: Uint8Array, identifier: string): Uint8Array {
  // The key is made of the identifier without any white space.
  const key = createHash('sha1').update(identifier.replace(/\s/g, '')).digest();
  const out = new Uint8Array(font);
  for (let i = 0; i < Math.min(SCRAMBLED, out.length); i++) out[i] = out[i]! ^ key[i % key.length]!;
  return out;
}

/** META-INF/encryption.xml for scrambled fonts. */
export const encryptionXml = (paths: readonly string[]): string => `<?xml version="1.0" encoding="UTF-8"?>
<encryption xmlns="urn:oasis:names:tc:opendocument:xmlns:container" xmlns:enc="http://www.w3.org/2001/04/xmlenc#">
${paths
  .map(
    (path) => `  <enc:EncryptedData>
    <enc:EncryptionMethod Algorithm="http://www.idpf.org/2008/embedding"/>
    <enc:CipherData>
      <enc:CipherReference URI="${path}"/>
    </enc:CipherData>
  </enc:EncryptedData>`,
  )
  .join('\n')}
</encryption>
`;
