'use client';
import { Said, said } from '../../core/words/said';
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import { ChevronDown, Layers, Play, Square } from 'lucide-react';
import { Link } from '../kit/Link';
import { useMemo, useRef, useState } from 'react';
import { useTakePlayer } from '../../audio/take-player';
import type { CategoryFit, Passaggio, VoiceMap } from '../../core/map/types';
import { overlapOf } from '../../core/map/overlap';
import { zoneOf } from '../../core/map/zone';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { Task } from '../../core/take/types';
import { ForCoaches } from '../kit/may-change';
import { EVENT_WORDS, FINDING_WORDS, SOURCE_WORDS, TASK_WORDS } from '../kit/words';
import { useLadderScale } from '../ladder/useLadderScale';
import { CeilingCard } from './CeilingCard';
import { Crossings } from './Crossings';
import { Dates, sessionsOf } from './Dates';
import { MapPicture } from './MapPicture';
import { MapTools } from './MapTools';
import { Pins } from './Pins';
import { useLanguage } from '../language/language';

interface TakeLine {
  id: string;
  task: Task;
  vowel: string;
  durationS: number;
  recordedAt: Date;
  usable: boolean | null;
  reasons: Said[];
  changes: number;
}

/** What the singer's school makes of the map: what it calls each change, and the categories that fit. */
interface NamedBySchool {
  name: string;
  changes: Said[];
  categories: CategoryFit[];
}

const HEIGHT = 530;

const range = (limits: { low: { midi: number }; high: { midi: number } } | null): Said =>
  limits ? said('{low} to {high}', { low: { note: limits.low.midi }, high: { note: limits.high.midi } }) : said('not known yet');

/** The map of a voice: what all its takes say together, each conclusion opening into its evidence. */
export function MapRoom({
  singer,
  map,
  takes,
  school,
}: {
  singer: { id: string; name: string; voiceType: VoiceTypeId };
  map: VoiceMap;
  takes: TakeLine[];
  school: NamedBySchool;
}) {
  const { dateTimeOf, decimal, note, t } = useLanguage();
  const player = useTakePlayer();
  const scale = useLadderScale(map, singer.voiceType, HEIGHT);
  const figure = useRef<HTMLElement>(null);
  const [ghost, setGhost] = useState<VoiceMap | null>(null);
  const sessions = useMemo(() => sessionsOf(takes.map((take) => take.recordedAt)), [takes]);
  if (takes.length === 0)
    return (
      <div className="card max-w-2xl text-lg">
        <p>
          {t(
            'The map is drawn from what the voice does. Record a siren or two: one slide from a comfortable low note to the top and back.',
          )}
        </p>
        <ForCoaches>
          <Link className="button-main mt-3" href={`/singers/${singer.id}/listen`}>
            {t('Listen to {name}', { name: singer.name })}
          </Link>
        </ForCoaches>
      </div>
    );
  const when = new Map(takes.map((take) => [take.id, take.recordedAt]));
  return (
    <div className="grid gap-4 lg:grid-cols-[1fr_26rem]">
      <div className="flex min-w-0 flex-col gap-2">
        <MapPicture
          scale={scale}
          map={map}
          when={when}
          onPlay={(v) => player.play(v.takeId, v.timeS - 1, v.timeS + 1)}
          ghost={ghost}
          figure={figure}
        />
        <Dates singerId={singer.id} sessions={sessions} map={map} onGhost={setGhost} />
        <MapTools name={singer.name} map={map} figure={figure} />
      </div>
      <aside className="flex flex-col gap-3 print:block print:columns-2 print:text-xs print:*:mb-1 print:*:break-inside-avoid print:*:p-1.5">
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-lg" data-testid="ranges">
          <dt className="text-soft">{t('Usable')}</dt>
          <dd>
            <b>{t(range(map.usable))}</b>
            <RestsOn
              takeIds={limitTakes(map.usable)}
              singerId={singer.id}
              when={when}
              rule={t('Held half a second within 50 cents in two takes, over an octave or more.')}
            />
          </dd>
          <dt className="text-soft">{t('Touched')}</dt>
          <dd>
            <b>{t(range(map.extreme))}</b>
            <RestsOn
              takeIds={limitTakes(map.extreme)}
              singerId={singer.id}
              when={when}
              rule={t('Phonated for 60 ms or more in one take.')}
            />
          </dd>
          {map.calibrated > 0 && (
            <>
              <dt className="text-soft">{t('Colours')}</dt>
              <dd>{t('read along this voice’s own in {calibrated} of {takes} takes', { calibrated: map.calibrated, takes: map.takes })}</dd>
            </>
          )}
          {map.speakingMidi !== null && (
            <>
              <dt className="text-soft">{t('Speaks near')}</dt>
              <dd className="font-bold">{note(map.speakingMidi)}</dd>
            </>
          )}
        </dl>
        <section aria-label={t('Passaggi')} className="flex flex-col gap-2">
          {map.passaggi.length === 0 && (
            <p className="card">
              {t('Where this voice changes is not clear yet:')}{' '}
              {map.takes < 2 ? t('one take proves little. Record two or three sirens.') : t('no change was heard often enough.')}
            </p>
          )}
          {map.passaggi.map((p, i) => (
            <PassaggioCard
              key={p.midi}
              passaggio={p}
              called={school.changes[i]}
              singerId={singer.id}
              when={when}
              playing={player.playing?.takeId ?? null}
              onPlay={(id, s) => (player.playing?.takeId === id ? player.stop() : player.play(id, s - 1, s + 1))}
            />
          ))}
        </section>
        {map.findings.length > 0 && (
          <section aria-label={t('What happens there')} className="card">
            <h2 className="font-bold">{t('What happens there')}</h2>
            <ul className="mt-1 flex flex-col gap-2">
              {map.findings.map((f) => (
                <li key={f.name + f.midi}>
                  <b>{t(FINDING_WORDS[f.name])}.</b> {t(f.because)} {f.impression && <FirstImpression />}
                  <RestsOn takeIds={f.takeIds} singerId={singer.id} when={when} />
                </li>
              ))}
            </ul>
            <p className="mt-2 text-sm text-soft">
              {t('How much is much was set on simulated voices, not yet on singers: your ear decides.')}
            </p>
            <Link className="button-main no-print mt-3" href={`/singers/${singer.id}/plan`}>
              {t('Choose the work')}
            </Link>
          </section>
        )}
        {map.ceiling && <CeilingCard ceiling={map.ceiling} />}
        <Pins singerId={singer.id} map={map} scale={scale} />
        <VoiceInWords map={map} school={school} />
      </aside>
      <section aria-label={t('Takes')} className="no-print lg:col-span-2">
        <h2 className="mb-1 text-lg font-bold">{t('{n, plural, one {# take} other {# takes}}', { n: takes.length })}</h2>
        <div className="card overflow-x-auto p-0">
          <table className="w-full">
            <tbody>
              {takes.map((take) => (
                <tr key={take.id} className="border-b border-line last:border-0">
                  <td className="px-4 py-2">
                    <Link
                      href={`/singers/${singer.id}/takes/${take.id}`}

                      className="inline-flex min-h-9 items-center font-semibold hover:underline"
                    >
                      {t(TASK_WORDS[take.task])}
                      {take.vowel && take.task !== 'speech' ? t(' on “{vowel}”', { vowel: take.vowel }) : ''}
                    </Link>
                  </td>
                  <td className="px-2">{dateTimeOf(take.recordedAt)}</td>
                  <td className="px-2">{decimal(take.durationS, 1)} s</td>
                  <td className="px-4 text-soft">
                    {take.usable === null
                      ? t('being listened to …')
                      : take.usable
                        ? t('{n, plural, one {# change} other {# changes}} heard', { n: take.changes })
                        : take.reasons.map((why) => t(why)).join(' ')}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </section>
    </div>
  );
}

const limitTakes = (limits: VoiceMap['usable']) => (limits ? [...new Set([...limits.low.takeIds, ...limits.high.takeIds])] : []);

/** The takes a conclusion rests on, and the rule, folded away until asked for. */
function RestsOn({ takeIds, singerId, when, rule }: { takeIds: string[]; singerId: string; when: Map<string, Date>; rule?: string }) {
  const { dateTimeOf, t } = useLanguage();
  if (takeIds.length === 0) return null;
  return (
    <details className="no-print text-sm text-soft">
      <summary className="cursor-pointer">{t('from {n, plural, one {# take} other {# takes}}', { n: takeIds.length })}</summary>
      {rule && <p>{t(rule)}</p>}
      <p className="flex flex-wrap gap-x-3">
        {takeIds.map((id) => (
          <Link key={id} className="underline" href={`/singers/${singerId}/takes/${id}`}>
            {when.has(id) ? dateTimeOf(when.get(id)!) : t('take')}
          </Link>
        ))}
      </p>
    </details>
  );
}

/** What else the map says, each with what it rests on. */
function VoiceInWords({ map: { insecure, weight, evenness }, school: { name, categories } }: { map: VoiceMap; school: NamedBySchool }) {
  const { rich, t } = useLanguage();
  return (
    <>
      {insecure.length > 0 && (
        <section aria-label={t('Least secure notes')} className="card">
          <h2 className="font-bold">{t('Least secure notes')}</h2>
          <ol className="mt-1 flex flex-col gap-1">
            {insecure.map((n) => (
              <li key={n.midi}>{t(n.because)}</li>
            ))}
          </ol>
        </section>
      )}
      {(weight || categories.length > 0 || evenness) && (
        <section aria-label={t('The voice as a whole')} className="card flex flex-col gap-2">
          <h2 className="font-bold">{t('The voice as a whole')}</h2>
          {weight && (
            <p>
              <b>{t('Weight.')}</b> {sentence(t('{all}', { all: { all: weight.because, as: 'semicolon' } }))}{' '}
              {weight.impression && <FirstImpression />}
            </p>
          )}
          {categories.length > 0 && (
            <div>
              {rich(
                '<b>Closest to</b>, as far as these takes tell ({name}); your ear decides:',
                { name },
                { b: (inside) => <b>{inside}</b> },
              )}
              <ul className="mt-1 list-disc pl-5">
                {categories.map((c) => (
                  <li key={c.name}>{t('{name}: {because}', { name: c.name, because: { all: c.because, as: 'comma' } })}</li>
                ))}
              </ul>
            </div>
          )}
          {evenness && (
            <p>
              {rich(
                evenness.slopeDb >= 0
                  ? '<b>Loudness</b> rises by {slope} dB an octave and strays {stray, number, ::.0} dB from that, most at {note} ({how}). An even voice gains as it climbs.'
                  : '<b>Loudness</b> falls by {slope} dB an octave and strays {stray, number, ::.0} dB from that, most at {note} ({how}). An even voice gains as it climbs.',
                {
                  slope: Math.round(Math.abs(evenness.slopeDb)),
                  stray: evenness.strayDb,
                  note: { note: evenness.worstMidi },
                  how: evenness.worstDb > 0 ? 'jumps out' : 'drops away',
                },
                { b: (inside) => <b>{inside}</b> },
              )}
            </p>
          )}
        </section>
      )}
    </>
  );
}

/** Reasons as one sentence. */
const sentence = (reasons: string) => `${reasons.charAt(0).toUpperCase()}${reasons.slice(1)}.`;

/** What rests on one take or one day is given, and said to be no more than that. */
const FirstImpression = () => {
  const { t } = useLanguage();
  return (
    <span className="whitespace-nowrap rounded-full border border-dashed border-soft px-2 text-sm font-normal text-soft">
      {t('first impression')}
    </span>
  );
};

/** The notes of the change, first and last, in words. */
function zone(p: Passaggio): Said {
  const { first, last } = zoneOf(p);
  const of = { first: { note: first }, last: { note: last } };
  return first === last ? said('on {first}', of) : said('from {first} to {last}', of);
}

/** Less than this is within what places are known to. */
const LEAST_OVERLAP_ST = 0.5;

/** On which vowel the change is heard least. */
function vowelWords(vowels: Passaggio['vowels']): Said {
  const told = {
    all: vowels.map((v) => said('“{vowel}” (heard in {heard} of {passes} slides)', { vowel: v.vowel, heard: v.heard, passes: v.passes })),
  };
  const share = (v: (typeof vowels)[number]) => v.heard / v.passes;
  return share(vowels[0]) === share(vowels[vowels.length - 1])
    ? said('Crosses alike on {vowels}.', { vowels: { ...told, as: 'and' } })
    : said('Crosses best on {vowels}, in this order.', { vowels: { ...told, as: 'comma' } });
}

/** How far the place itself is known: half of the interval that holds it in nine of ten voices. */
const sureTo = (p: Passaggio): Said => said('give or take {by, number, ::.0} semitones', { by: (p.highMidi - p.lowMidi) / 2 });

const heard = (midi: number | null, { found, of }: { found: number; of: number }): Said =>
  of === 0
    ? said('not passed')
    : midi === null
      ? said('{found} of {of}', { found, of })
      : said('{note}, {found} of {of}', { note: { note: midi }, found, of });

function PassaggioCard({
  passaggio: p,
  called,
  singerId,
  when,
  playing,
  onPlay,
}: {
  passaggio: Passaggio;
  called: Said;
  singerId: string;
  when: Map<string, Date>;
  playing: string | null;
  onPlay: (takeId: string, timeS: number) => void;
}) {
  const { dateOf, note, t } = useLanguage();
  // A blend has a zone instead.
  const overlap = p.name === 'blended' ? null : overlapOf(p);
  const [laid, setLaid] = useState(false);
  return (
    <Disclosure as="div" className="card" data-testid="passaggio">
      <DisclosureButton className="flex min-h-11 w-full items-center gap-4 text-left">
        <span className="text-3xl font-bold">{note(p.midi)}</span>
        <span className="flex-1">
          {p.name === 'blended' ? t('Blends') : p.name === 'flip' ? t('Flips') : t('Toggles')} {t(zone(p))}{' '}
          {p.impression && <FirstImpression />}
          <br />
          <span className="text-sm">{t('{called}, {sure}', { called, sure: sureTo(p) })}</span>
          <br />
          <span className="text-sm text-soft">
            {t('up {up} · down {down} passes', { up: heard(p.upMidi, p.up), down: heard(p.downMidi, p.down) })}
          </span>
        </span>
        <ChevronDown aria-hidden className="shrink-0 text-soft" />
        <span className="sr-only">{t('Show the evidence')}</span>
      </DisclosureButton>
      <DisclosurePanel className="mt-2 border-t border-line pt-2">
        {p.impression && (
          <p className="mb-2 text-sm">
            {t(
              'Heard on one day, or too seldom each way: two takes on two days, twice up and twice down, make it more than a first impression.',
            )}
          </p>
        )}
        {overlap && (
          <p className="mb-2 text-sm" data-testid="overlap">
            {t('Chest goes up to {high}, head comes down to {low}: {overlap}', {
              high: { note: overlap.high },
              low: { note: overlap.low },
              overlap:
                overlap.widthSt >= LEAST_OVERLAP_ST
                  ? said('{n, number, ::.0} semitones are sung in both registers.', { n: overlap.widthSt })
                  : said('the registers meet and hardly overlap.'),
            })}
          </p>
        )}
        {p.vowels.length > 0 && <p className="mb-2 text-sm">{t(vowelWords(p.vowels))}</p>}
        {p.votes.length > 1 && (
          <button className="button no-print mb-2 px-3" onClick={() => setLaid(true)}>
            <Layers aria-hidden size={18} /> {t('Lay the passes over each other')}
          </button>
        )}
        {laid && <Crossings singerId={singerId} midi={p.midi} when={when} onClose={() => setLaid(false)} />}
        <ul className="flex max-h-64 flex-col overflow-y-auto">
          {p.votes.map((v) => (
            <li key={`${v.takeId}${v.timeS}${v.source}`} className="flex items-center gap-2">
              <button
                className="button-small min-h-11 min-w-11"
                aria-label={t('Play {note} going {direction}', { note: { note: v.midi }, direction: v.direction })}
                onClick={() => onPlay(v.takeId, v.timeS)}
              >
                {playing === v.takeId ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}
              </button>
              <b className="w-10">{note(v.midi)}</b>
              <span className="flex-1 text-sm">
                {t(SOURCE_WORDS[v.source] ?? EVENT_WORDS[v.kind])}, {t(v.direction)}
              </span>
              <Link className="text-sm underline" href={`/singers/${singerId}/takes/${v.takeId}?at=${v.timeS.toFixed(2)}`}>
                {when.has(v.takeId) ? dateOf(when.get(v.takeId)!) : t('take')}
              </Link>
            </li>
          ))}
        </ul>
      </DisclosurePanel>
    </Disclosure>
  );
}
