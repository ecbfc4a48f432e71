// Lays a take over its song, off the page's own thread: a song of some minutes takes seconds on a phone.
import { heardIn } from '../core/song/outcome';
import type { ToFollow } from './follow-song';

onmessage = ({ data: [sung, take] }: MessageEvent<ToFollow>) => postMessage(heardIn(sung, take));
