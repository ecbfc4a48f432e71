import { atDistance } from '../../core/signal/level';
import { useStored } from '../kit/useStored';
import { DEVICE_KEY, Source } from './sources';

/** Where levels are told for: the usual distance of a measuring microphone from the mouth. */
export const TOLD_AT_CM = 30;

/** What was measured with a calibrator for an input, and how far it stands from the mouth; kept on this device, for each microphone. */
export function useLevelSetting(source: Source) {
  const [microphone] = useStored<string>(DEVICE_KEY, '');
  const input = source === 'microphone' ? microphone || 'default' : source;
  const [fullScale, setFullScale] = useStored<string>(`wendel-calibration-${input}`, '');
  const [distance, setDistance] = useStored<string>('wendel-distance-cm', String(TOLD_AT_CM));
  const distanceCm = Number(distance);
  return {
    /** What a mean square of 1 is in dB(A) at TOLD_AT_CM; null where the input isn't calibrated. */
    offsetDb: fullScale === '' ? null : atDistance(Number(fullScale), distanceCm, TOLD_AT_CM),
    distanceCm,
    /** The calibrator's tone of `toneDb` read `levelDb`. */
    setCalibrated: (levelDb: number, toneDb: number) => setFullScale(String(toneDb - levelDb)),
    forget: () => setFullScale(''),
    setDistanceCm: (next: number) => setDistance(String(next)),
  };
}
