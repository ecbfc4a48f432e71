'use client';
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import { ChevronDown, Play, Square } from 'lucide-react';
import Link from 'next/link';
import { useMemo, useRef, useState } from 'react';
import { useTakePlayer } from '../../audio/take-player';
import type { CategoryFit, Passaggio, VoiceMap } from '../../core/map/types';
import { overlapOf } from '../../core/map/overlap';
import { zoneOf } from '../../core/map/zone';
import { noteName } from '../../core/music/pitch';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { Task } from '../../core/take/types';
import { ForCoaches } from '../kit/may-change';
import { dateOf, dateTimeOf } from '../kit/dates';
import { EVENT_WORDS, FINDING_WORDS, SOURCE_WORDS, TASK_WORDS } from '../kit/words';
import { useLadderScale } from '../ladder/useLadderScale';
import { CeilingCard } from './CeilingCard';
import { Dates, sessionsOf } from './Dates';
import { MapPicture } from './MapPicture';
import { MapTools } from './MapTools';
import { Pins } from './Pins';

interface TakeLine {
  id: string;
  task: Task;
  vowel: string;
  durationS: number;
  recordedAt: Date;
  usable: boolean | null;
  reasons: string[];
  changes: number;
}

/** What the singer's school makes of the map: what it calls each change, and the categories that fit. */
interface NamedBySchool {
  name: string;
  changes: string[];
  categories: CategoryFit[];
}

const HEIGHT = 530;

const range = (limits: { low: { midi: number }; high: { midi: number } } | null) =>
  limits ? `${noteName(limits.low.midi)} to ${noteName(limits.high.midi)}` : 'not known yet';

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
  const player = useTakePlayer();
  const scale = useLadderScale(map, singer.voiceType, HEIGHT);
  const figure = useRef<HTMLElement>(null);
  const [ghost, setGhost] = useState<VoiceMap | null>(null);
  const sessions = useMemo(() => sessionsOf(takes.map((t) => t.recordedAt)), [takes]);
  if (takes.length === 0)
    return (
      <div className="card max-w-2xl text-lg">
        <p>The map is drawn from what the voice does. Record a siren or two: one slide from a comfortable low note to the top and back.</p>
        <ForCoaches>
          <Link className="button-main mt-3" href={`/singers/${singer.id}/listen`}>
            Listen to {singer.name}
          </Link>
        </ForCoaches>
      </div>
    );
  const when = new Map(takes.map((t) => [t.id, t.recordedAt]));
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
          <dt className="text-soft">Usable</dt>
          <dd>
            <b>{range(map.usable)}</b>
            <RestsOn
              takeIds={limitTakes(map.usable)}
              singerId={singer.id}
              when={when}
              rule="Held half a second within 50 cents in two takes, over an octave or more."
            />
          </dd>
          <dt className="text-soft">Touched</dt>
          <dd>
            <b>{range(map.extreme)}</b>
            <RestsOn takeIds={limitTakes(map.extreme)} singerId={singer.id} when={when} rule="Phonated for 60 ms or more in one take." />
          </dd>
          {map.calibrated > 0 && (
            <>
              <dt className="text-soft">Colours</dt>
              <dd>
                read along this voice’s own in {map.calibrated} of {map.takes} takes
              </dd>
            </>
          )}
          {map.speakingMidi !== null && (
            <>
              <dt className="text-soft">Speaks near</dt>
              <dd className="font-bold">{noteName(map.speakingMidi)}</dd>
            </>
          )}
        </dl>
        <section aria-label="Passaggi" className="flex flex-col gap-2">
          {map.passaggi.length === 0 && (
            <p className="card">
              Where this voice changes is not clear yet:{' '}
              {map.takes < 2 ? 'one take proves little. Record two or three sirens.' : 'no change was heard often enough.'}
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
          <section aria-label="What happens there" className="card">
            <h2 className="font-bold">What happens there</h2>
            <ul className="mt-1 flex flex-col gap-2">
              {map.findings.map((f) => (
                <li key={f.name + f.midi}>
                  <b>{FINDING_WORDS[f.name]}.</b> {f.because} {f.impression && <FirstImpression />}
                  <RestsOn takeIds={f.takeIds} singerId={singer.id} when={when} />
                </li>
              ))}
            </ul>
            <p className="mt-2 text-sm text-soft">How much is much was set on simulated voices, not yet on singers: your ear decides.</p>
            <Link className="button-main no-print mt-3" href={`/singers/${singer.id}/plan`}>
              Choose the work
            </Link>
          </section>
        )}
        {map.ceiling && <CeilingCard ceiling={map.ceiling} />}
        <Pins singerId={singer.id} map={map} scale={scale} />
        <VoiceInWords map={map} school={school} />
      </aside>
      <section aria-label="Takes" className="no-print lg:col-span-2">
        <h2 className="mb-1 text-lg font-bold">
          {takes.length} {takes.length === 1 ? 'take' : 'takes'}
        </h2>
        <div className="card overflow-x-auto p-0">
          <table className="w-full">
            <tbody>
              {takes.map((t) => (
                <tr key={t.id} className="border-b border-line last:border-0">
                  <td className="px-4 py-2">
                    <Link
                      href={`/singers/${singer.id}/takes/${t.id}`}
                      prefetch={false}
                      className="inline-flex min-h-9 items-center font-semibold hover:underline"
                    >
                      {TASK_WORDS[t.task]}
                      {t.vowel && t.task !== 'speech' ? ` on “${t.vowel}”` : ''}
                    </Link>
                  </td>
                  <td className="px-2">{dateTimeOf(t.recordedAt)}</td>
                  <td className="px-2">{t.durationS.toFixed(1)} s</td>
                  <td className="px-4 text-soft">
                    {t.usable === null
                      ? 'being listened to …'
                      : t.usable
                        ? `${t.changes} ${t.changes === 1 ? 'change' : 'changes'} heard`
                        : t.reasons.join(' ')}
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
  if (takeIds.length === 0) return null;
  return (
    <details className="no-print text-sm text-soft">
      <summary className="cursor-pointer">
        from {takeIds.length} {takeIds.length === 1 ? 'take' : 'takes'}
      </summary>
      {rule && <p>{rule}</p>}
      <p className="flex flex-wrap gap-x-3">
        {takeIds.map((id) => (
          <Link key={id} prefetch={false} className="underline" href={`/singers/${singerId}/takes/${id}`}>
            {when.has(id) ? dateTimeOf(when.get(id)!) : 'take'}
          </Link>
        ))}
      </p>
    </details>
  );
}

/** What else the map says, each with what it rests on. */
function VoiceInWords({ map: { insecure, weight, evenness }, school: { name, categories } }: { map: VoiceMap; school: NamedBySchool }) {
  return (
    <>
      {insecure.length > 0 && (
        <section aria-label="Least secure notes" className="card">
          <h2 className="font-bold">Least secure notes</h2>
          <ol className="mt-1 flex flex-col gap-1">
            {insecure.map((n) => (
              <li key={n.midi}>{n.because}</li>
            ))}
          </ol>
        </section>
      )}
      {(weight || categories.length > 0 || evenness) && (
        <section aria-label="The voice as a whole" className="card flex flex-col gap-2">
          <h2 className="font-bold">The voice as a whole</h2>
          {weight && (
            <p>
              <b>Weight.</b> {sentence(weight.because)} {weight.impression && <FirstImpression />}
            </p>
          )}
          {categories.length > 0 && (
            <div>
              <b>Closest to</b>, as far as these takes tell ({name}); your ear decides:
              <ul className="mt-1 list-disc pl-5">
                {categories.map((c) => (
                  <li key={c.name}>
                    {c.name}: {c.because.join(', ')}
                  </li>
                ))}
              </ul>
            </div>
          )}
          {evenness && (
            <p>
              <b>Loudness</b> {evenness.slopeDb >= 0 ? 'rises' : 'falls'} by {Math.abs(evenness.slopeDb).toFixed(0)} dB an octave and strays{' '}
              {evenness.strayDb.toFixed(1)} dB from that, most at {noteName(evenness.worstMidi)} (
              {evenness.worstDb > 0 ? 'jumps out' : 'drops away'}). An even voice gains as it climbs.
            </p>
          )}
        </section>
      )}
    </>
  );
}

/** Reasons as one sentence. */
const sentence = (reasons: string[]) => {
  const text = reasons.join('; ');
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
};

/** What rests on one take or one day is given, and said to be no more than that. */
const FirstImpression = () => (
  <span className="whitespace-nowrap rounded-full border border-dashed border-soft px-2 text-sm font-normal text-soft">
    first impression
  </span>
);

/** The notes of the change, first and last, in words. */
function zone(p: Passaggio): string {
  const { first, last } = zoneOf(p);
  return first === last ? `on ${noteName(first)}` : `from ${noteName(first)} to ${noteName(last)}`;
}

/** Less than this is within what places are known to. */
const LEAST_OVERLAP_ST = 0.5;

/** On which vowel the change is heard least. */
function vowelWords(vowels: Passaggio['vowels']): string {
  const told = vowels.map((v) => `“${v.vowel}” (heard in ${v.heard} of ${v.passes} slides)`);
  const share = (v: (typeof vowels)[number]) => v.heard / v.passes;
  if (share(vowels[0]) === share(vowels[vowels.length - 1])) return `Crosses alike on ${told.join(' and ')}.`;
  return `Crosses best on ${told.join(', then on ')}.`;
}

/** How far the place itself is known: half of the interval that holds it in nine of ten voices. */
const sureTo = (p: Passaggio) => `give or take ${((p.highMidi - p.lowMidi) / 2).toFixed(1)} semitones`;

const heard = ({ found, of }: { found: number; of: number }) => (of === 0 ? 'not passed' : `${found} of ${of}`);

function PassaggioCard({
  passaggio: p,
  called,
  singerId,
  when,
  playing,
  onPlay,
}: {
  passaggio: Passaggio;
  called: string;
  singerId: string;
  when: Map<string, Date>;
  playing: string | null;
  onPlay: (takeId: string, timeS: number) => void;
}) {
  // A blend has a zone instead.
  const overlap = p.name === 'blended' ? null : overlapOf(p);
  return (
    <Disclosure as="div" className="card" data-testid="passaggio">
      <DisclosureButton className="flex min-h-11 w-full items-center gap-4 text-left">
        <span className="text-3xl font-bold">{noteName(p.midi)}</span>
        <span className="flex-1">
          {p.name === 'blended' ? 'Blends' : p.name === 'flip' ? 'Flips' : 'Toggles'} {zone(p)} {p.impression && <FirstImpression />}
          <br />
          <span className="text-sm">
            {called}, {sureTo(p)}
          </span>
          <br />
          <span className="text-sm text-soft">
            up {p.upMidi === null ? '' : `${noteName(p.upMidi)}, `}
            {heard(p.up)} · down {p.downMidi === null ? '' : `${noteName(p.downMidi)}, `}
            {heard(p.down)} passes
          </span>
        </span>
        <ChevronDown aria-hidden className="shrink-0 text-soft" />
        <span className="sr-only">Show the evidence</span>
      </DisclosureButton>
      <DisclosurePanel className="mt-2 border-t border-line pt-2">
        {p.impression && (
          <p className="mb-2 text-sm">
            Heard on one day, or too seldom each way: two takes on two days, twice up and twice down, make it more than a first impression.
          </p>
        )}
        {overlap && (
          <p className="mb-2 text-sm" data-testid="overlap">
            Chest goes up to {noteName(overlap.high)}, head comes down to {noteName(overlap.low)}:{' '}
            {overlap.widthSt >= LEAST_OVERLAP_ST
              ? `${overlap.widthSt.toFixed(1)} semitones are sung in both registers.`
              : 'the registers meet and hardly overlap.'}
          </p>
        )}
        {p.vowels.length > 0 && <p className="mb-2 text-sm">{vowelWords(p.vowels)}</p>}
        <ul className="flex max-h-64 flex-col overflow-y-auto">
          {p.votes.map((v) => (
            <li key={`${v.takeId}${v.timeS}${v.source}`} className="flex items-center gap-2">
              <button
                className="button-small min-h-11 min-w-11"
                aria-label={`Play ${noteName(v.midi)} going ${v.direction}`}
                onClick={() => onPlay(v.takeId, v.timeS)}
              >
                {playing === v.takeId ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}
              </button>
              <b className="w-10">{noteName(v.midi)}</b>
              <span className="flex-1 text-sm">
                {SOURCE_WORDS[v.source] ?? EVENT_WORDS[v.kind]}, {v.direction}
              </span>
              <Link prefetch={false} className="text-sm underline" href={`/singers/${singerId}/takes/${v.takeId}?at=${v.timeS.toFixed(2)}`}>
                {when.has(v.takeId) ? dateOf(when.get(v.takeId)!) : 'take'}
              </Link>
            </li>
          ))}
        </ul>
      </DisclosurePanel>
    </Disclosure>
  );
}
