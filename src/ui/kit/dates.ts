import { type Language, LOCALES } from '../../core/format/say';
const DAY_ONLY = /^\d{4}-\d\d-\d\d$/;

/** Moments in words as a clock in a time zone tells them; a day by itself ("2026-11-25") is that day in every zone. */
export function datesIn(timeZone: string, language: Language = 'en') {
  const part = (options: Intl.DateTimeFormatOptions, zone = timeZone) =>
    new Intl.DateTimeFormat(LOCALES[language], { ...options, timeZone: zone });
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

const dates = new Map<Language, ReturnType<typeof datesIn>>();
/** The machine tells its pages where it stands (in the layout), so that a page drawn anew in a browser tells the same time. */
function here(language: Language = 'en') {
  let found = dates.get(language);
  if (!found)
    dates.set(
      language,
      (found = datesIn((typeof document !== 'undefined' && document.documentElement.dataset.zone) || machineZone(), language)),
    );
  return found;
}

/** The date of a moment at the studio, or a day, in words: "25 Nov". */
export const dateOf = (moment: Date | string, language?: Language): string => here(language).dateOf(moment);
/** "25 Nov, 19:05". */
export const dateTimeOf = (moment: Date | string, language?: Language): string => here(language).dateTimeOf(moment);
/** "2026-11-25". */
export const dayOf = (moment: Date): string => here().dayOf(moment);
