const DAY_ONLY = /^\d{4}-\d\d-\d\d$/;

/** Moments in words as a clock in a time zone tells them; a day by itself ("2026-11-25") is that day in every zone. */
export function datesIn(timeZone: string) {
  const part = (options: Intl.DateTimeFormatOptions, zone = timeZone) => new Intl.DateTimeFormat('en-GB', { ...options, timeZone: zone });
  const date = part({ day: 'numeric', month: 'short' });
  const wholeDay = part({ day: 'numeric', month: 'short' }, 'UTC');
  const dateTime = part({ day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
  const day = new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
  return {
    dateOf: (moment: Date | string) => (typeof moment === 'string' && DAY_ONLY.test(moment) ? wholeDay : date).format(new Date(moment)),
    dateTimeOf: (moment: Date | string) => dateTime.format(new Date(moment)),
    dayOf: (moment: Date) => day.format(moment),
  };
}

/** Where the studio's machine stands. */
export const machineZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

let dates: ReturnType<typeof datesIn> | undefined;
/** The machine tells its pages where it stands (in the layout), so that a page drawn anew in a browser tells the same time. */
const here = () => (dates ??= datesIn((typeof document !== 'undefined' && document.documentElement.dataset.zone) || machineZone()));

/** The date of a moment at the studio, or a day, in words: "25 Nov". */
export const dateOf = (moment: Date | string): string => here().dateOf(moment);
/** "25 Nov, 19:05". */
export const dateTimeOf = (moment: Date | string): string => here().dateTimeOf(moment);
/** "2026-11-25". */
export const dayOf = (moment: Date): string => here().dayOf(moment);
