import { MICROPHONES, MicrophoneName, takenBy } from '../../core/sim/microphone';
import { directToReverberantDb, drawRoom, heardThrough, roomResponse } from '../../core/sim/room';
import { seededRandom } from '../../core/signal/stats';
import { Pcm } from '../../core/voice/types';
import { picker, RATE } from './makers';

/** How a singer is recorded: one room and one microphone, as in a sitting. */
export interface Recording {
  /** None for the dry exception. */
  room: string | null;
  /** Direct sound over reflected, dB: in small hard rooms less than was asked for. */
  directDb: number;
  microphone: MicrophoneName;
  snrDb: number;
  hum: boolean;
  of(pcm: Pcm, take: number): Pcm;
}

/** From and to, dB: a microphone 15 to 60 cm from a mouth; a vacuum cleaner next door to a quiet night (common practice, no source). */
const DIRECT_DB = [5, 20] as const;
const SNR_DB = [15, 50] as const;
const HUM_UNDER_DB = [30, 50] as const;
const DRY_SHARE = 0.1;
const HUM_SHARE = 0.25;

/** Draw how a singer is recorded: in a room nine times of ten, with any microphone, noise and sometimes hum. */
export function drawRecording(seed: number): Recording {
  const random = seededRandom(31 * seed + 7);
  const between = ([low, high]: readonly [number, number]) => low + (high - low) * random();
  const dry = random() < DRY_SHARE;
  const room = drawRoom(seed, between(DIRECT_DB));
  const response = roomResponse(room, RATE, seed);
  const microphone = picker(random)(Object.keys(MICROPHONES) as MicrophoneName[]);
  const snrDb = between(SNR_DB);
  const hum = random() < HUM_SHARE ? { hz: random() < 0.5 ? 50 : 60, underDb: between(HUM_UNDER_DB) } : null;
  return {
    room: dry ? null : room.name,
    directDb: directToReverberantDb(response, RATE),
    microphone,
    snrDb,
    hum: hum !== null,
    of: (pcm, take) => takenBy(microphone, dry ? pcm : heardThrough(response, pcm), { snrDb, hum }, seededRandom(1000 * seed + take)),
  };
}
