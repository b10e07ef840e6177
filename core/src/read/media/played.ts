/** Sounds and films that browsers play (common practice), by the ends of their names. */
export const PLAYED: Readonly<Record<string, string>> = {
  mp3: 'audio/mpeg',
  m4a: 'audio/mp4',
  ogg: 'audio/ogg',
  oga: 'audio/ogg',
  wav: 'audio/wav',
  mp4: 'video/mp4',
  m4v: 'video/mp4',
  webm: 'video/webm',
  ogv: 'video/ogg',
};

const ascii = (head: Uint8Array, at: number, length: number): string => String.fromCharCode(...head.subarray(at, at + length));

/** Whether a file begins as its kind does (WHATWG MIME Sniffing, section 6.2; MP3: ISO/IEC 11172-3 frame sync or an ID3 tag). */
export function beginsAs(mediaType: string, head: Uint8Array): boolean {
  switch (mediaType) {
    case 'audio/mp4':
    case 'video/mp4':
      return ascii(head, 4, 4) === 'ftyp';
    case 'video/webm':
      return head[0] === 0x1a && head[1] === 0x45 && head[2] === 0xdf && head[3] === 0xa3;
    case 'audio/ogg':
    case 'video/ogg':
      return ascii(head, 0, 4) === 'OggS';
    case 'audio/wav':
      return ascii(head, 0, 4) === 'RIFF' && ascii(head, 8, 4) === 'WAVE';
    case 'audio/mpeg':
      return ascii(head, 0, 3) === 'ID3' || (head[0] === 0xff && (head[1]! & 0xe0) === 0xe0);
    default:
      return false;
  }
}
