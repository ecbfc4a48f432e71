import type { Step } from './types';

const DO_RE_MI = ['do', 're', 'mi', 'fa', 'sol', 'la', 'ti'];
const RAISED = ['di', 'ri', 'fa', 'fi', 'si', 'li', 'do'];
const LOWERED = ['ti', 'ra', 'me', 'mi', 'se', 'le', 'te'];

/**
 * What a note of a pattern is called in movable do: "do" is the tonic of whatever key it is sung in; a raised note takes an i, a
 * lowered one an e or a (common practice, no source).
 * @example movableDo({ degree: 5 }) // "sol"
 * @example movableDo({ degree: 3, alter: -1 }) // "me"
 */
export function movableDo({ degree, alter }: Pick<Step, 'degree' | 'alter'>): string {
  const names = alter === 1 ? RAISED : alter === -1 ? LOWERED : DO_RE_MI;
  return names[(((degree - 1) % 7) + 7) % 7];
}
