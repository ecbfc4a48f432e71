/**
 * The part of a file a Range header asks for (RFC 9110, 14.1.2: one range of bytes), as from `from` to `to` (exclusive); null: all of it.
 * @example byteRange('bytes=0-99', 1000) // { from: 0, to: 100 }
 * @example byteRange('bytes=-100', 1000) // { from: 900, to: 1000 }
 * @example byteRange('bytes=1000-', 1000) // 'past the end'
 */
export function byteRange(header: string | null, length: number): { from: number; to: number } | 'past the end' | null {
  const [, first, last] = /^bytes=(\d*)-(\d*)$/.exec(header ?? '') ?? [];
  if (!first && !last) return null;
  const from = first ? Number(first) : Math.max(0, length - Number(last));
  const to = first && last ? Math.min(Number(last) + 1, length) : length;
  return from < to ? { from, to } : 'past the end';
}
