'use client';
import { Play, Printer, Square } from 'lucide-react';
import Link from 'next/link';
import { useMemo, useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import { patternSpan } from '../../core/exercise/keys';
import { renderKey } from '../../core/exercise/render';
import type { Exercise } from '../../core/exercise/types';
import type { VoiceMap } from '../../core/map/types';
import { noteName } from '../../core/music/pitch';
import { tonicName } from '../../core/music/scale';
import type { PlanItem } from '../../core/plan/types';
import { Notice } from '../kit/Notice';
import { dateOf } from '../kit/words';
import { Staff } from '../staff/Staff';
import { KeyStrip } from './KeyStrip';

interface Props {
  view: {
    assignment: { id: string; note: string; createdAt: Date };
    singer: { id: string; name: string; part: string };
    map: VoiceMap;
    items: { item: PlanItem; exercise: Exercise }[];
  };
}

/** So many exercises fill a printed page; more are printed smaller. */
const FIT_ITEMS = 7;

/** A practice sheet: each exercise with its notes, keys, dose and reason; it plays, and prints on one page. */
export function PracticeSheet({ view: { assignment, singer, map, items } }: Props) {
  const { sounding, problem, play, stop } = useFollowAlong();
  const [tempos, setTempos] = useState<number[]>(items.map(({ item }) => item.tempo));
  const range = useMemo(() => {
    const notes = items.flatMap(({ item, exercise }) => {
      const span = patternSpan(exercise);
      return item.keys.flatMap((k) => [k + span.bottom, k + span.top]);
    });
    return {
      low: Math.min(...notes, map.extreme ? Math.floor(map.extreme.low.midi) : 127),
      high: Math.max(...notes, map.extreme ? Math.ceil(map.extreme.high.midi) : 0),
    };
  }, [items, map]);

  return (
    <main
      className="mx-auto max-w-[1000px] px-4 py-4 print:max-w-none print:p-0 print:[zoom:var(--fit)]"
      style={{ '--fit': Math.min(1, FIT_ITEMS / items.length) } as React.CSSProperties}
    >
      <div className="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <h1 className="text-2xl font-bold print:text-xl">{singer.name}: practice</h1>
        <p className="pb-0.5 text-soft">from {dateOf(assignment.createdAt)}</p>
        <div className="no-print ml-auto flex gap-2">
          <Link className="button" href={`/singers/${singer.id}/plan`}>
            Plan
          </Link>
          <button className="button" onClick={() => window.print()}>
            <Printer aria-hidden size={18} /> Print
          </button>
        </div>
      </div>
      {assignment.note && <p className="mb-2 text-lg print:text-sm">{assignment.note}</p>}
      {problem && <Notice>{problem}</Notice>}
      <ol className="flex flex-col gap-3 print:gap-0">
        {items.map(({ item, exercise }, i) => {
          const playing = sounding?.id === exercise.id;
          const shownKey = playing ? item.keys[sounding.key] : item.keys[0];
          return (
            <li
              key={exercise.id}
              className="card break-inside-avoid print:rounded-none print:border-0 print:border-t print:px-0 print:py-1"
              data-testid="sheet-item"
            >
              <div className="grid gap-x-5 md:grid-cols-[1fr_17rem] print:grid-cols-[1fr_64mm] print:gap-x-3">
                <div>
                  <h2 className="text-lg font-bold print:text-base">
                    {i + 1}. {exercise.name} <span className="font-normal">on “{item.sound}”</span>
                  </h2>
                  <Staff exercise={exercise} tonic={shownKey} />
                </div>
                <div className="text-sm">
                  <p className="font-bold">
                    {item.minutes} min, {item.timesADay}× a day · ♩ = {tempos[i]}
                  </p>
                  <p>
                    Keys: {noteName(item.keys[0], tonicName(item.keys[0]).includes('b'))}
                    {item.keys.length > 1 &&
                      ` ${item.keys[1] > item.keys[0] ? 'up' : 'down'} to ${noteName(item.keys[item.keys.length - 1], tonicName(item.keys[item.keys.length - 1]).includes('b'))} by semitone`}
                  </p>
                  <KeyStrip range={range} map={map} item={item} exercise={exercise} current={playing ? shownKey : null} />
                </div>
              </div>
              <p className="print:text-[12px] print:leading-tight">{exercise.how}</p>
              <p className="text-sm text-soft print:text-[11px] print:leading-tight">
                {item.reason} <b>{item.caution}</b>
              </p>
              <div className="no-print mt-2 flex flex-wrap items-center gap-3">
                {playing ? (
                  <button className="button-main" onClick={stop}>
                    <Square aria-hidden size={18} /> Stop
                  </button>
                ) : (
                  <button
                    className="button-main"
                    onClick={() =>
                      void play(
                        exercise.id,
                        item.keys.map((k) => renderKey(exercise, k, tempos[i])),
                      )
                    }
                  >
                    <Play aria-hidden size={18} /> Play through the keys
                  </button>
                )}
                <label className="flex items-center gap-2 text-sm">
                  Slower
                  <input
                    type="range"
                    aria-label={`Tempo of ${exercise.name}`}
                    min={exercise.tempo[0] - 20}
                    max={exercise.tempo[2] + 20}
                    step={2}
                    value={tempos[i]}
                    onChange={(e) => (stop(), setTempos(tempos.map((t, j) => (j === i ? e.target.valueAsNumber : t))))}
                  />
                  Faster
                </label>
                <p aria-live="polite" className="text-2xl font-bold" data-testid="sounding-key">
                  {playing ? noteName(shownKey, tonicName(shownKey).includes('b')) : ''}
                </p>
              </div>
            </li>
          );
        })}
      </ol>
      <p className="mt-3 border-t border-line pt-2 text-sm print:mt-1 print:text-[11px]">
        <b>Stop</b> when it scratches, tickles, tightens or hurts, and rest as long as you sang. A crack is only information. Still hoarse
        after a good rest? Leave it, tell your coach, and see a doctor if it does not clear.
      </p>
    </main>
  );
}
