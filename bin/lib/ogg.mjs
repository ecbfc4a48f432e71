// Cuts sound files in Ogg pages (RFC 3533) without decoding them.

const HEADER = 27;
const LAST_PAGE = 4;

/** CRC of a page: polynomial 0x04c11db7, not reflected, from 0 (RFC 3533, section 6). */
const CRC = Uint32Array.from({ length: 256 }, (_, i) => {
  let r = i << 24;
  for (let bit = 0; bit < 8; bit++) r = r & 0x80000000 ? (r << 1) ^ 0x04c11db7 : r << 1;
  return r >>> 0;
});
const crcOf = (bytes) => bytes.reduce((crc, byte) => ((crc << 8) ^ CRC[(crc >>> 24) ^ byte]) >>> 0, 0);

/** The pages of a file: where each begins and ends, and up to which sample it goes (-1: no packet ends in it). */
function pagesOf(file) {
  const pages = [];
  for (let at = 0; at < file.length;) {
    if (file.toString('latin1', at, at + 4) !== 'OggS') throw new Error(`There is no Ogg page at byte ${at}.`);
    const segments = file.subarray(at + HEADER, at + HEADER + file[at + 26]);
    const end = at + HEADER + segments.length + segments.reduce((sum, n) => sum + n, 0);
    pages.push({ at, end, samples: Number(file.readBigInt64LE(at + 6)) });
    at = end;
  }
  return pages;
}

/** A file of one Vorbis stream up to the page that holds a moment, as a file of its own. @throws Error where it is none. */
export function cutOgg(file, seconds) {
  const named = file.indexOf('\x01vorbis', 0, 'latin1');
  if (named < 0) throw new Error('This is no Vorbis sound.');
  const most = seconds * file.readUInt32LE(named + 12);
  const pages = pagesOf(file);
  const last = pages.find((page) => page.samples >= most) ?? pages.at(-1);
  const cut = Buffer.from(file.subarray(0, last.end));
  cut[last.at + 5] |= LAST_PAGE;
  cut.writeUInt32LE(0, last.at + 22);
  cut.writeUInt32LE(crcOf(cut.subarray(last.at)), last.at + 22);
  return cut;
}
