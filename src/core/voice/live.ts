import { LANES } from '../signal/kernel';
import { createResampler } from '../signal/resample';
import { createCandidates, findCandidates, FRAME_REACH, readHarmonics, readsSlow } from './frame';
import { createPath } from './path';
import { createHighPass } from './track';
import { ANALYSIS_RATE, HARMONICS, HOP, HOP_S } from './types';

/** One live frame: seconds since the first sample, hertz (0 unvoiced), level dB, harmonics as in `VoiceTrack` (none when unvoiced). */
export interface LiveFrame {
  timeS: number;
  hz: number;
  levelDb: number;
  harmonicsDb: Float32Array | null;
  floorDb: number;
}

/** Frames the live path waits before it decides. With half a window (32 ms) and the filters (6 ms) the delay is 48 ms. */
const LAG = 2;
const HALF_REACH = FRAME_REACH / 2;

/** A stretch of a stream that remembers where it stands: `at` turns a sample's place in the stream into an index. */
function createTail() {
  let data = new Float32Array(0);
  let origin = 0;
  return {
    append(block: Float32Array) {
      const joined = new Float32Array(data.length + block.length);
      joined.set(data);
      joined.set(block, data.length);
      data = joined;
    },
    dropBefore(place: number) {
      const count = Math.max(0, place - origin);
      data = data.slice(count);
      origin += count;
    },
    data: () => data,
    at: (place: number) => place - origin,
    end: () => origin + data.length,
  };
}

/** The tracker for a live view: push blocks at `sampleRate`, get frames with a bounded delay. Shares its parts with `trackVoice`. */
export function createLiveTracker(sampleRate: number): { push(block: Float32Array): LiveFrame[] } {
  const toFull = createResampler(sampleRate, ANALYSIS_RATE);
  const toHalf = createResampler(ANALYSIS_RATE, ANALYSIS_RATE / 2);
  const filter = createHighPass();
  const candidates = Array.from({ length: LANES }, createCandidates);
  const pitch = new Float64Array(1);
  const path = createPath(LAG + 2);
  const levels: number[] = [];
  const full = createTail();
  const half = createTail();
  let frame = 0;
  let floorDb = -70;

  return {
    push(block) {
      const fresh = filter(toFull.push(block));
      full.append(fresh);
      half.append(toHalf.push(fresh));
      const out: LiveFrame[] = [];
      const ready = Math.min(Math.floor((full.end() - FRAME_REACH) / HOP), Math.floor((half.end() - HALF_REACH) / (HOP / 2))) + 1;
      while (frame < ready) {
        const count = Math.min(LANES, ready - frame);
        findCandidates(full.data(), full.at(frame * HOP), half.data(), half.at((frame * HOP) / 2), candidates, count, 1);
        for (let lane = 0; lane < count; lane++, frame++) {
          const { levelDb } = candidates[lane];
          // The floor falls at once and climbs slowly, so it settles on the room between phrases.
          floorDb = levelDb < floorDb ? levelDb : Math.min(-40, floorDb + 0.01);
          path.push(candidates[lane], Math.max(-65, floorDb + 6));
          levels.push(levelDb);
          if (levels.length <= LAG) continue;
          const at = frame - LAG;
          pitch[0] = path.decide(LAG).hz;
          const harmonicsDb = pitch[0] > 0 ? new Float32Array(HARMONICS) : null;
          if (harmonicsDb) {
            const [signal, centre] = readsSlow(pitch[0]) ? [half, (at * HOP) / 2] : [full, at * HOP];
            readHarmonics(signal.data(), [signal.at(centre)], pitch, 1, harmonicsDb, [0]);
          }
          out.push({ timeS: at * HOP_S, hz: pitch[0], levelDb: levels.shift()!, harmonicsDb, floorDb });
        }
      }
      full.dropBefore((frame - LAG) * HOP - FRAME_REACH);
      half.dropBefore(((frame - LAG) * HOP) / 2 - HALF_REACH);
      return out;
    },
  };
}
