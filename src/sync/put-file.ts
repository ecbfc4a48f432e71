import type { FileAnswer } from './answer';

/** To the sending worker: where a file goes (its hash is added to the query), and the file. */
export interface FileToSend {
  path: string;
  file: ArrayBuffer;
  /** As whom it is sent. */
  headers: Record<string, string>;
}

let worker: Worker | undefined;
let last: Promise<unknown> = Promise.resolve();

/** PUT a file, with its SHA-256, from a worker; files go one after another. */
export function putFile(toSend: FileToSend): Promise<FileAnswer> {
  const one = last.then(
    () =>
      new Promise<FileAnswer>((resolve) => {
        worker ??= new Worker(new URL('./put-file.worker.ts', import.meta.url), { type: 'module' });
        worker.onmessage = ({ data }: MessageEvent<FileAnswer>) => resolve(data);
        worker.onerror = () => {
          worker = undefined;
          resolve(null);
        };
        worker.postMessage(toSend);
      }),
  );
  last = one;
  return one;
}
