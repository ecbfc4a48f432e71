// Sings with the simulated singer, off the page's own thread.
import { sing } from '../core/sim/sing';
import { SingRequest } from './simulated';

onmessage = ({ data }: MessageEvent<SingRequest>) => {
  const { pcm } = sing(data.profile, data.task, data.options);
  postMessage(pcm, { transfer: [pcm.samples.buffer] });
};
