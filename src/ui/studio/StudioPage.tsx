import Link from 'next/link';
import type { VoiceMap } from '../../core/map/types';
import { noteName } from '../../core/music/pitch';
import { VoiceTypeId, voiceType } from '../../core/plan/voice-types';
import { dateOf, FINDING_WORDS } from '../kit/words';
import { LyingLabels, LyingLadder } from '../ladder/LyingLadder';
import { AddSinger } from './AddSinger';

interface Row {
  id: string;
  name: string;
  part: string;
  voiceType: VoiceTypeId;
  note: string;
  takes: number;
  lastHeard: Date | null;
  map: VoiceMap;
}

/** Everyone in the studio, each voice drawn on one shared keyboard. */
export function StudioPage({ singers }: { singers: Row[] }) {
  return (
    <main className="mx-auto max-w-[1240px] px-4 py-4">
      <div className="mb-3 flex items-center gap-4">
        <h1 className="text-2xl font-bold">Your singers</h1>
        <span className="text-soft">{singers.length}</span>
        <div className="ml-auto">
          <AddSinger />
        </div>
      </div>
      {singers.length === 0 ? (
        <p className="card text-lg">Nobody is here yet. Add a singer, then listen to a siren: the map of the voice starts there.</p>
      ) : (
        <div className="card overflow-x-auto p-0">
          <table className="w-full">
            <thead className="text-left text-sm text-soft">
              <tr className="border-b border-line">
                <th className="px-4 py-2 font-normal">Singer</th>
                <th className="px-2 py-2 font-normal">
                  <LyingLabels />
                </th>
                <th className="px-2 py-2 font-normal">Changes near</th>
                <th className="px-2 py-2 font-normal">What happens there</th>
                <th className="px-2 py-2 font-normal">Last heard</th>
                <th className="px-4 py-2">
                  <span className="sr-only">Next</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {singers.map((s) => (
                <tr key={s.id} className="border-b border-line last:border-0">
                  <td className="px-4 py-3">
                    <Link href={`/singers/${s.id}`} className="text-lg font-bold hover:underline">
                      {s.name}
                    </Link>
                    <div className="text-sm text-soft">{[voiceType(s.voiceType).name, s.part].filter(Boolean).join(' · ')}</div>
                  </td>
                  <td className="px-2 py-3">
                    <LyingLadder map={s.map} />
                    <span className="sr-only">
                      {s.map.extreme ? `${noteName(s.map.extreme.low.midi)} to ${noteName(s.map.extreme.high.midi)}` : 'not heard yet'}
                    </span>
                  </td>
                  <td className="px-2 py-3 font-bold">{s.map.passaggi.map((p) => noteName(p.midi)).join(', ') || '–'}</td>
                  <td className="px-2 py-3">
                    {[...new Set(s.map.findings.map((f) => FINDING_WORDS[f.name]))].join(', ') ||
                      (s.takes ? 'Nothing stands out yet' : 'Not heard yet')}
                  </td>
                  <td className="px-2 py-3 whitespace-nowrap">{s.lastHeard ? dateOf(s.lastHeard) : 'Never'}</td>
                  <td className="px-4 py-3 text-right">
                    <Link href={`/singers/${s.id}/listen`} className="button" aria-label={`Listen to ${s.name}`}>
                      Listen
                    </Link>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </main>
  );
}
