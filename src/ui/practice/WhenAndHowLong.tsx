import { useLanguage } from '../language/language';

/** Minutes and a day of something that is told afterwards. */
export function WhenAndHowLong({
  choices,
  minutes,
  onMinutes,
  day,
  today,
  onDay,
}: {
  /** Minutes to choose from. */
  choices: readonly number[];
  minutes: number;
  onMinutes: (minutes: number) => void;
  day: string;
  today: string;
  onDay: (day: string) => void;
}) {
  const { t } = useLanguage();
  return (
    <div className="flex gap-2">
      <label className="flex flex-1 flex-col text-sm text-soft">
        {t('Minutes')}
        <select className="field text-base" value={minutes} onChange={(e) => onMinutes(Number(e.target.value))}>
          {choices.map((m) => (
            <option key={m}>{m}</option>
          ))}
        </select>
      </label>
      <label className="flex flex-1 flex-col text-sm text-soft">
        {t('Day')}
        <input
          className="field text-base"
          type="date"
          max={today}
          required
          value={day}
          onChange={(e) => e.target.value && onDay(e.target.value)}
        />
      </label>
    </div>
  );
}
