// Sends a file to the server off the page's own thread: a large one would hold the page up for a quarter of a second.
import { answerOf, FileAnswer } from './answer';
import type { FileToSend } from './put-file';

onmessage = async ({ data: { path, file, headers } }: MessageEvent<FileToSend>) => {
  const digest = await crypto.subtle.digest('SHA-256', file);
  const sha256 = Array.from(new Uint8Array(digest), (b) => b.toString(16).padStart(2, '0')).join('');
  const answer: FileAnswer = await answerOf(`${path}&sha256=${sha256}`, {
    method: 'PUT',
    headers: { ...headers, 'content-type': 'audio/wav' },
    body: new Blob([file]),
  });
  postMessage(answer);
};
