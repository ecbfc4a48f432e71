import { said, type Said } from '../words/said';
import type { Exercise } from './types';

/** What an exercise is called, in words that can be said in any language. */
export const exerciseName = ({ name, ofSong }: Pick<Exercise, 'name' | 'ofSong'>): Said =>
  ofSong ? said('A line of {title}', { title: { own: ofSong.title } }) : name;

/** What the singer does in it. */
export const exerciseHow = ({ how, ofSong }: Pick<Exercise, 'how' | 'ofSong'>): Said =>
  ofSong
    ? said('Sing the line to warm into it, then one line of {title}, in {key}, on the sound your plan says.', {
        title: { own: ofSong.title },
        key: { key: ofSong.key },
      })
    : how;
