/** What is to happen at times of the audio clock (s), each once and in order of time. */
export interface Agenda {
  /** Do `work` at a time; it is told that time. What is said of one time is done in the order it was said. */
  at: (time: number, work: (time: number) => void) => void;
  /** Do all that is due before a time, and what that puts on the agenda before it as well. What fails is not done again; the rest stays. */
  doUntil: (time: number) => void;
}

/**
 * An agenda with nothing on it. It counts nothing: what it is asked for late is done late, but never left out or done twice, as
 * a count of beats between one look at the clock and the next may.
 *
 * @example const a = agenda(); a.at(1, play); a.doUntil(0.9); a.doUntil(1.1); // plays at the second
 */
export function agenda(): Agenda {
  const entries: { time: number; work: (time: number) => void }[] = [];
  return {
    at: (time, work) => {
      const later = entries.findIndex((entry) => entry.time > time);
      entries.splice(later < 0 ? entries.length : later, 0, { time, work });
    },
    doUntil: (time) => {
      while (entries.length && entries[0].time < time) {
        const entry = entries.shift()!;
        entry.work(entry.time);
      }
    },
  };
}
