/** Raised whenever the same recording could give another result. */
export const ENGINE = 'wendel-8';
