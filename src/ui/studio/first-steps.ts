import { said, Said } from '../../core/words/said';

/** What the first steps look at of a singer. */
export interface Started {
  id: string;
  name: string;
  lastHeard: Date | null;
  hasWeek: boolean;
  practised: { last: string | null };
}

export interface FirstStep {
  name: Said;
  /** Why, and how, in a sentence. */
  says: Said;
  done: boolean;
  /** Where it is done; null: on the studio's page itself. */
  href: string | null;
  button: Said;
}

/**
 * From an empty studio to a singer who practises: each step with whether it is done, read off what is there. They follow whoever has come
 * furthest, so that one singer leads through all of it; null once somebody has practised a week that was assigned.
 */
export function firstSteps(singers: readonly Started[]): FirstStep[] | null {
  const far = (s: Started) => Number(s.lastHeard !== null) + Number(s.hasWeek) + Number(s.hasWeek && s.practised.last !== null);
  const furthest = [...singers].sort((a, b) => far(b) - far(a))[0];
  const heard = furthest !== undefined && furthest.lastHeard !== null;
  const week = furthest?.hasWeek ?? false;
  if (week && furthest.practised.last !== null) return null;
  const at = (tab: string) => (furthest ? `/singers/${furthest.id}/${tab}` : null);
  const of = { name: furthest ? { own: furthest.name } : 'the singer' } as const;
  return [
    {
      name: said('Add a singer'),
      says: said('A name and a voice are enough. Notes on health and goals can wait.'),
      done: furthest !== undefined,
      href: null,
      button: said('Add your first singer'),
    },
    {
      name: said('Listen'),
      says: said('A few sirens of {name} from low to high and back, ten minutes in all. Without a microphone: an audio file.', of),
      done: heard,
      href: at('listen'),
      button: said('Listen to {name}', of),
    },
    {
      name: said('Look at the map, and assign a week'),
      says: said(
        'The map says where the voice changes; the plan has worked out a week from it. Change what you like, then press Assign week.',
      ),
      done: week,
      href: at('plan'),
      button: said('The plan of {name}', of),
    },
    {
      name: said('Send the practice page'),
      says: said(
        '{name} opens it on a phone, without an account, and practises with the piano. “To their phone” stands on the practice sheet: under Assigned before, on the plan.',
        of,
      ),
      done: false,
      href: week ? at('plan') : null,
      button: said('The plan of {name}', of),
    },
  ];
}
