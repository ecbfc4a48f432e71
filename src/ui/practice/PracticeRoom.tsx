'use client';
import { exerciseName } from '../../core/exercise/of-song';
import { AudioLines, CalendarPlus, Check, ChevronLeft, ChevronRight, TriangleAlert, WifiOff } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { actAs } from '../../sync/account';
import type { Exercise } from '../../core/exercise/types';
import type { VoiceMap } from '../../core/map/types';
import { daysBetween } from '../../core/plan/days';
import { dayBent, daysToShow, type RoadDate } from '../../core/plan/dates';
import { dayMinutes } from '../../core/plan/dose';
import { type OccasionId, type OccasionSet, warmUpFor } from '../../core/plan/occasions';
import { mayBeSerious, ruleForToday, SEE_DOCTOR, worst } from '../../core/plan/safety';
import { songsRest, workOfDay } from '../../core/practice/work-of-day';
import { anchorsOf, changeIn, strongest } from '../../core/plan/voice';
import { type Model, modelsOf } from '../../core/exercise/model';
import { keepForOffline } from './keep-for-offline';
import { modelPath } from './HearModels';
import { beltMinutes } from '../../core/practice/belt';
import { isElsewhere, otherSinging } from '../../core/practice/elsewhere';
import { dayLater } from '../../core/plan/days';
import { noticesOf, returnShare, saidToday } from '../../core/practice/health';
import type { PlanItem } from '../../core/plan/types';
import { expectedChange, VoiceTypeId } from '../../core/plan/voice-types';
import type { SongVoice } from '../../core/song/voice';
import { knownVoice } from '../../core/judge/known-voice';
import { daysOf, wordsIn } from '../../core/practice/log';
import { mainChange } from '../../core/practice/measures';
import { readinessOn } from '../../core/practice/readiness';
import { standing } from '../../core/practice/standing';
import { markerNote } from '../../core/practice/voice-check';
import { Done, Entry, isDone } from '../../core/practice/types';
import { saidOf } from '../../core/words/said-error';
import { keepSpoken } from '../../sync/spoken';
import type { ShortRecording } from '../listen/useShortRecording';
import { dayKey, weekFrom } from '../plan/days';
import { downloadCalendar } from '../sheet/calendar';
import { BeforeQuestions } from './BeforeQuestions';
import { LanguageChoice, MovableDoChoice } from '../language/LanguageChoice';
import { ByHand } from './ByHand';
import { PracticePlayer } from './PracticePlayer';
import { SangElsewhere } from './SangElsewhere';
import { Sets } from './Sets';
import { SongPlayer } from './SongPlayer';
import { MySong, Songs } from './Songs';
import { usePracticeLog } from './usePracticeLog';
import { TrainYourEar } from './TrainYourEar';
import { TrialDay } from './TrialDay';
import { TrialToday, type Trying } from './TrialToday';
import { VoiceCheck } from './VoiceCheck';
import { useLanguage } from '../language/language';
import { type Said, texts } from '../../core/words/said';

type Item = PlanItem & { exercise: Exercise };

interface Props {
  token: string;
  view: {
    singer: { id: string; name: string; voiceType: VoiceTypeId; professional: boolean; consent: 'none' | 'singer' | 'guardian' };
    keepMonths: number | null;
    map: VoiceMap;
    assignment: { id: string; note: string; startsOn: string; items: Item[] } | null;
    entries: Entry[];
    models: Model[];
    sets: (Omit<OccasionSet, 'items'> & { items: Item[] })[];
    dates: RoadDate[];
    songs: MySong[];
    /** The voice that songs are laid on; null: nothing was sung yet. */
    voice: SongVoice | null;
    /** Minutes a week that may be belted; null: no limit. */
    beltMinutes: number | null;
    /** A trial of one that is under way. */
    trial: { id: string } | null;
    spared: boolean;
    minor: boolean;
    older: boolean;
  };
}

/** The singer's own page: how the voice is, today's exercises one after another, and what was done. */
export function PracticeRoom({ token, view }: Props) {
  const speaker = useLanguage();
  const { t } = speaker;
  const { singer, keepMonths, map, assignment, entries: given, models, sets, dates } = view;
  actAs(`link:${token}`);
  const log = usePracticeLog(token, given, assignment?.id ?? null);
  const [open, setOpen] = useState<string | null>(null);
  const [chosen, setChosen] = useState<OccasionId | null>(null);
  /** The check of the voice: before singing, or after the warm-up. */
  const [checking, setChecking] = useState<'cold' | 'warm' | null>(null);
  const [listening, setListening] = useState(false);
  const [problem, setProblem] = useState<Said | null>(null);
  /** Today’s part of a trial of one that is being sung. */
  const [trying, setTrying] = useState<Trying | null>(null);
  const [today, setToday] = useState<string | null>(null);
  useEffect(() => {
    // The singer's own day, which the server doesn't know; looked at again when the page comes back to the front.
    const look = () => setToday(dayKey(new Date()));
    look();
    document.addEventListener('visibilitychange', look);
    return () => document.removeEventListener('visibilitychange', look);
  }, []);
  useEffect(() => {
    void keepForOffline(models.map((m) => modelPath(token, m.id)));
  }, [models, token]);

  const stands = useMemo(() => (today ? standing(log.entries, today) : null), [log.entries, today]);
  if (!today || !stands) return <main className="p-4" aria-busy="true" />;
  const day = assignment ? weekFrom(assignment.startsOn).findIndex((d) => d.key === today) : -1;
  // A week that has run out goes on until the next one comes.
  const weekday = assignment ? (day >= 0 ? day : ((daysBetween(assignment.startsOn, today) % 7) + 7) % 7) : 0;
  const said = worst(saidToday(log.entries, today));
  const anchors = anchorsOf(map, singer.voiceType)?.anchors ?? null;
  const places = anchors ?? { low: 0, change: changeIn(map, singer.voiceType) };
  const bent = dayBent(today, dates);
  const readiness = readinessOn(log.entries, today);
  const belted = view.beltMinutes !== null && beltMinutes(log.entries, today) >= view.beltMinutes;
  const ofDay = {
    today: said,
    returning: returnShare(log.entries, today),
    bent,
    belted,
    readiness,
    elsewhere: otherSinging(log.entries, today),
  };
  const ofToday = assignment?.items.filter((it) => it.days.includes(weekday)) ?? [];
  const itemsOf = (id: OccasionId) => sets.find((s) => s.id === id)?.items ?? null;
  const work = workOfDay(ofToday, bent?.set ? itemsOf(bent.set) : null, ofDay, places);
  // A set that was chosen is as long as it says; what may not be sung today isn't in it either.
  const set = sets.find((s) => s.id === chosen);
  const items = set ? workOfDay(set.items, null, { ...ofDay, returning: 1, bent: null, elsewhere: null }, places).items : work.items;
  const notices = noticesOf(log.entries, today, { professional: singer.professional, daysToShow: daysToShow(dates, today) });
  const rounds = (id: string) => log.entries.filter((e) => e.day === today && isDone(e) && e.what.exerciseId === id).length;
  const wanted = (it: PlanItem) => (stands.lighter ? 1 : it.timesADay);
  const playing = items.find((it) => it.exerciseId === open);
  const main = mainChange(map);
  // Its leap is what a trial of one looks at.
  const flips = main?.name === 'flip' ? main : null;
  const songsToday = songsRest(ofDay);
  const singing = songsToday === null ? view.songs.find((s) => s.id === open) : undefined;
  const tell = (done: Omit<Done, 'kind'>, spoken: ShortRecording | null) => {
    setOpen(null);
    const line = log.add({ kind: 'item', ...done });
    if (spoken) void keepSpoken(token, singer, line, spoken.wav.buffer).catch((error) => setProblem(saidOf(error)));
  };
  const planned = dayMinutes(work.items, bent?.set ? 0 : weekday);
  const minutes = daysOf(log.entries).find((d) => d.day === today)?.minutes ?? 0;

  return (
    <main className="mx-auto flex max-w-[30rem] flex-col gap-4 px-4 py-4">
      <header className="flex items-baseline gap-2">
        <h1 className="flex-1 text-xl font-bold">{singer.name}</h1>
        <p className="text-soft">
          {planned > 0 ? t('{minutes} of {planned} min today', { minutes: Math.round(minutes), planned: Math.round(planned) }) : t('today')}
        </p>
      </header>
      {notices.map((n) => (
        <p key={n.id} role="alert" className="card border-warn">
          {t(n.says)}
        </p>
      ))}
      {log.waiting > 0 && (
        <p role="status" className="flex items-center gap-2 text-sm text-soft">
          <WifiOff aria-hidden size={16} /> {t('Kept here; it goes to your coach when the network is back.')}
        </p>
      )}
      {log.refused.map(({ id, refused }) => (
        <p key={id} role="alert" className="flex flex-wrap items-center gap-2">
          <span className="flex-1">{t('A line of your log was not accepted: {why} Tell your coach.', { why: refused ?? '' })}</span>
          <button className="button" onClick={() => log.discard(id)}>
            {t('Take it away')}
          </button>
        </p>
      ))}
      {problem && <p role="alert">{t('What you said did not reach your coach: {why} Write it instead.', { why: problem })}</p>}
      {stands.stopped ? (
        <section role="alert" className="card flex flex-col gap-2 border-warn" data-testid="stopped">
          <h2 className="flex items-center gap-2 text-2xl font-bold text-warn">
            <TriangleAlert aria-hidden /> {t('That is enough for today')}
          </h2>
          <p className="text-lg">{t(stands.stopped.says)}</p>
          <p>{t('Your coach is told. Tomorrow is another day; local rules and your doctor’s word come first.')}</p>
          {mayBeSerious(stands.stopped) && (
            <ul className="list-disc pl-5 text-sm">
              {SEE_DOCTOR.map((rule) => (
                <li key={rule.id}>{t(rule.says)}</li>
              ))}
            </ul>
          )}
        </section>
      ) : !assignment && sets.length === 0 ? (
        <p className="card text-lg">{t('Nothing is assigned yet. Your coach will put this week’s exercises here.')}</p>
      ) : !stands.asked ? (
        <BeforeQuestions onAnswer={(before) => log.add(before)} />
      ) : checking && anchors ? (
        <VoiceCheck
          key={checking}
          parts={checking === 'warm' ? ['marker'] : undefined}
          warm={checking === 'warm'}
          markerMidi={markerNote(anchors, view.spared)}
          log={log.entries}
          day={today}
          singer={singer}
          token={token}
          onCheck={(check) => {
            setChecking(null);
            log.add(check);
          }}
          onLeave={() => setChecking(null)}
        />
      ) : trying && view.trial && flips ? (
        <TrialDay
          {...trying}
          trial={view.trial.id}
          changeMidi={flips.midi}
          singer={singer}
          token={token}
          onLine={(line) => {
            setTrying(null);
            log.add(line);
          }}
          onLeave={() => setTrying(null)}
        />
      ) : playing ? (
        <PracticePlayer
          key={playing.exerciseId}
          item={playing}
          exercise={playing.exercise}
          voice={singer.voiceType}
          singer={singer}
          token={token}
          mayKeep={singer.consent !== 'none'}
          limits={anchors}
          findings={strongest(map.findings).map((f) => f.name)}
          ceiling={map.ceiling}
          models={modelsOf(models, playing.exerciseId, singer.id)}
          known={knownVoice(map, expectedChange(singer.voiceType))}
          listening={listening}
          onListen={setListening}
          onLeave={() => setOpen(null)}
          onDone={tell}
        />
      ) : singing && view.voice ? (
        <SongPlayer
          key={singing.id}
          mine={singing}
          models={models}
          voice={view.voice}
          singer={singer}
          token={token}
          mayKeep={singer.consent !== 'none'}
          onLeave={() => setOpen(null)}
          onDone={tell}
        />
      ) : (
        <>
          {set ? (
            <header className="flex flex-col gap-2">
              <button className="button min-h-11 self-start" onClick={() => setChosen(null)}>
                <ChevronLeft aria-hidden size={18} /> {t('Today’s work')}
              </button>
              <h2 className="text-2xl leading-tight font-bold">{t(set.name)}</h2>
              <p className="text-lg">{t(set.says)}</p>
              {items.length === 0 && <p className="card">{t('Nothing of it suits such a day.')}</p>}
            </header>
          ) : (
            <>
              {assignment?.note && <p className="text-lg">{assignment.note}</p>}
              <Answers entries={log.entries} />
              {stands.lighter && <p className="card border-band">{t(stands.lighter)}</p>}
              {work.because.length > 0 && (
                <div className="card border-band" data-testid="day-bent">
                  {work.because.map((why) => (
                    <p key={t(why)}>{t(why)}</p>
                  ))}
                </div>
              )}
              {anchors && !readiness && work.items.length > 0 && (
                <button className="button min-h-12 justify-start" onClick={() => setChecking('cold')}>
                  <AudioLines aria-hidden size={20} /> {t('How is the voice today? One minute')}
                </button>
              )}
              {view.trial && flips && !ruleForToday(said) && !stands.lighter && (
                <TrialToday log={log.entries} trial={view.trial.id} day={today} onBegin={setTrying} />
              )}
              {!assignment ? (
                <p className="card text-lg">{t('Nothing is assigned yet. Your coach will put this week’s exercises here.')}</p>
              ) : (
                work.items.length === 0 && (
                  <p className="card text-lg">
                    {ofToday.length > 0
                      ? t('Nothing of today’s work suits such a day. The voice learns while it rests.')
                      : t('A day of rest. The voice learns while it rests.')}
                  </p>
                )
              )}
            </>
          )}
          <ol className="flex flex-col gap-2">
            {items.map((it) => {
              const done = rounds(it.exerciseId);
              const left = stands.left.get(it.exerciseId);
              const over = done >= wanted(it);
              return (
                <li key={it.exerciseId}>
                  <button
                    className="card flex w-full items-center gap-3 p-3 text-left disabled:opacity-60"
                    disabled={Boolean(left)}
                    data-testid="practice-item"
                    onClick={() => setOpen(it.exerciseId)}
                  >
                    <span className="min-w-0 flex-1">
                      <span className="block text-lg leading-tight font-semibold">{t(exerciseName(it.exercise))}</span>
                      <span className="block text-sm text-soft">
                        {left
                          ? t(left.says)
                          : t('on “{sound}”, {minutes} min · {done} of {wanted} today', {
                              sound: it.sound,
                              minutes: it.minutes,
                              done,
                              wanted: wanted(it),
                            })}
                      </span>
                    </span>
                    {over ? <Check aria-label={t('done for today')} className="text-accent" /> : <ChevronRight aria-hidden />}
                  </button>
                </li>
              );
            })}
          </ol>
          {anchors && set?.id.startsWith('warm-up') && (
            <button className="button min-h-12 justify-start" onClick={() => setChecking('warm')}>
              <AudioLines aria-hidden size={20} /> {t('Is it warm? One soft note')}
            </button>
          )}
          {!set && (
            <Sets
              sets={sets}
              first={warmUpFor({
                minor: view.minor,
                older: view.older,
                hour: new Date().getHours(),
                sungToday: log.entries.some((e) => e.day === today && isDone(e)),
              })}
              onChoose={setChosen}
            />
          )}
          {!set && view.voice && <Songs songs={view.songs} rest={songsToday} onChoose={setOpen} />}
          {!set && (
            <SangElsewhere
              today={today}
              told={log.entries.filter(isElsewhere).filter((e) => e.day === today || e.day === dayLater(today, -1))}
              onTell={log.add}
            />
          )}
          {assignment && !set && <ByHand items={assignment.items} today={today} onTell={log.add} />}
        </>
      )}
      {assignment && !playing && !singing && (
        <button
          className="button min-h-11 self-start"
          onClick={() =>
            downloadCalendar(
              { ...assignment, items: assignment.items.map((item) => ({ item, exercise: item.exercise })) },
              singer.name,
              location.href,
              speaker,
            )
          }
        >
          <CalendarPlus aria-hidden size={18} /> {t('Remind me: into my calendar')}
        </button>
      )}
      {!playing && !singing && (
        <>
          <TrainYourEar />
          <History entries={log.entries} />
          <Privacy consent={singer.consent} keepMonths={keepMonths} />
          <LanguageChoice />
          <MovableDoChoice />
        </>
      )}
    </main>
  );
}

const CONSENT_WORDS = texts({
  none: 'Nobody has agreed to recording, so nothing you sing here is recorded or sent: the phone only listens while you practise.',
  singer: 'You agreed to be recorded. A recording is sent only where you tick it; you may take your word back at any time.',
  guardian:
    'Your guardian agreed to recording. A recording is sent only where you tick it; either of you may take that word back at any time.',
});

/** What becomes of what is told and recorded here. */
function Privacy({ consent, keepMonths }: { consent: keyof typeof CONSENT_WORDS; keepMonths: number | null }) {
  const { t } = useLanguage();
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{t('Who sees this')}</summary>
      <p className="text-sm">
        {t('The coaches of your studio see what you practised, what you told, and the figures of the check of your voice and of a trial.')}{' '}
        {t(CONSENT_WORDS[consent])} {consent !== 'none' && `${t('A word you speak to your coach goes to them when you tell it.')} `}
        {t('The mirror is a picture on this phone alone and is never recorded.')}{' '}
        {keepMonths
          ? t('The sound of recordings is deleted after {months} months.', { months: keepMonths })
          : t('Recordings are kept until your coach deletes them.')}{' '}
        {t('Ask your coach for a copy of everything that is kept of you, or to have it deleted for good.')}{' '}
        {t('Whoever has this page’s link sees your exercises: keep it to yourself.')}
      </p>
    </details>
  );
}

/** So many answers stand on the page, the newest first. */
const SHOWN_ANSWERS = 2;

/** What the coach answered to the singer's own words. */
function Answers({ entries }: { entries: Entry[] }) {
  const { t } = useLanguage();
  const answered = wordsIn(entries).filter((w) => w.answer);
  return answered.slice(0, SHOWN_ANSWERS).map((w) => (
    <p key={w.id} className="card border-band p-3" data-testid="answer">
      <span className="block text-sm text-soft">
        {w.word === null
          ? t('You spoke after “{name}”', { name: w.name })
          : t('You wrote of {name}: “{word}”', { name: w.name, word: { own: w.word } })}
      </span>
      {w.answer}
    </p>
  ));
}

const SHOWN_DAYS = 14;

/** What was done on the last days: no streak that breaks, only what is there. */
function History({ entries }: { entries: Entry[] }) {
  const { t } = useLanguage();
  const days = daysOf(entries).slice(-SHOWN_DAYS).reverse();
  if (days.length === 0) return null;
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{t('What you did')}</summary>
      <ul className="flex flex-col gap-1">
        {days.map((d) => (
          <li key={d.day} className="flex gap-2 text-sm">
            <span className="w-24">{d.day}</span>
            <span className="flex-1">
              {t('{minutes} min, {items, plural, one {# exercise} other {# exercises}}', {
                minutes: Math.round(d.minutes),
                items: d.items,
              })}
              {d.load.voicedS > 0 && t(', {minutes} min voiced', { minutes: Math.round(d.load.voicedS / 60) })}
              {d.elsewhere > 0 && t('; {minutes} min elsewhere', { minutes: d.elsewhere })}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}
