import { said, Said } from '../../core/words/said';
import { SaidError } from '../../core/words/said-error';
import type { SongFile } from '../../core/format/song-musicxml';

export interface ToRead {
  bytes: Uint8Array;
  name: string;
  part?: string;
}
export type ReadSong = { file: SongFile } | { problem: Said };

/** A file is given up when it hasn't been read by then. */
const LONGEST_MS = 20_000;

/** The song in a file the browser was given; `part` asks for one of its parts. @throws SaidError with what to do. */
export async function readSongFile(file: File, part?: string): Promise<SongFile> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const worker = new Worker(new URL('./read.worker.ts', import.meta.url), { type: 'module' });
  try {
    const read = await new Promise<ReadSong>((resolve) => {
      const no = () =>
        resolve({ problem: said('{file} takes too long to read: export the melody alone and try again.', { file: { own: file.name } }) });
      worker.onmessage = ({ data }: MessageEvent<ReadSong>) => resolve(data);
      worker.onerror = no;
      setTimeout(no, LONGEST_MS);
      worker.postMessage({ bytes, name: file.name, part } satisfies ToRead, [bytes.buffer]);
    });
    if ('problem' in read) throw new SaidError(read.problem);
    return read.file;
  } finally {
    worker.terminate();
  }
}
