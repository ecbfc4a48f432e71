/** Vowels the simulated singer knows, by the sound coaches write. */
export type Vowel = 'ah' | 'eh' | 'ee' | 'oh' | 'oo' | 'uh';

interface Formant {
  hz: number;
  bandwidth: number;
}

/**
 * F1-F3 in hertz: Peterson & Barney 1952, averages for men and women, from memory ("oh" is their open o).
 * F4 and F5 are round figures.
 */
export const FORMANTS: Record<'man' | 'woman', Record<Vowel, [number, number, number]>> = {
  man: {
    ah: [730, 1090, 2440],
    eh: [530, 1840, 2480],
    ee: [270, 2290, 3010],
    oh: [570, 840, 2410],
    oo: [300, 870, 2240],
    uh: [640, 1190, 2390],
  },
  woman: {
    ah: [850, 1220, 2810],
    eh: [610, 2330, 2990],
    ee: [310, 2790, 3310],
    oh: [590, 920, 2710],
    oo: [370, 950, 2670],
    uh: [760, 1400, 2780],
  },
};

/** The formants of a vowel in a tract of this kind; F1 follows f0 once the voice climbs past it, as high voices do. */
export function formantsOf(vowel: Vowel, tract: 'man' | 'woman', f0: number): Formant[] {
  const [f1, f2, f3] = FORMANTS[tract][vowel];
  const raised = Math.max(f1, f0 * 1.02);
  const upper = tract === 'man' ? [3500, 4500] : [4100, 5100];
  return [
    { hz: raised, bandwidth: 80 },
    { hz: Math.max(f2, raised * 1.25), bandwidth: 100 },
    { hz: f3, bandwidth: 140 },
    { hz: upper[0], bandwidth: 200 },
    { hz: upper[1], bandwidth: 260 },
  ];
}

/** Complex gain of the cascade at `hz`: two-pole resonances, unity at 0 Hz (Fant's all-pole tract). */
export function tractGain(formants: Formant[], hz: number): { re: number; im: number } {
  let re = 1;
  let im = 0;
  for (const { hz: f, bandwidth } of formants) {
    const half = bandwidth / 2;
    const numerator = f * f + half * half;
    const dr = numerator - hz * hz;
    const di = hz * bandwidth;
    const scale = numerator / (dr * dr + di * di);
    const gr = dr * scale;
    const gi = -di * scale;
    const r = re * gr - im * gi;
    im = re * gi + im * gr;
    re = r;
  }
  return { re, im };
}
