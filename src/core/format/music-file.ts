import { SaidError } from '../words/said-error';

/** A file that can't be read as music: what is wrong and what to do. */
export class MusicFileError extends SaidError {}
