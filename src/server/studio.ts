import { inStudio, StudioTx, studioIds } from '../data/client';

let found: string | undefined;

/** Run work in the present studio. Until accounts come there is exactly one. */
export async function inPresentStudio<T>(work: (tx: StudioTx) => Promise<T>): Promise<T> {
  found ??= (await studioIds())[0];
  if (!found) throw new Error('There is no studio yet: start Wendel with npm start, which makes one.');
  return inStudio(found, work);
}
