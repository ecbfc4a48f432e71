/** Raised whenever the same recording could give another result: stored takes are heard anew. */
export const ENGINE = 'wendel-12';

/** Its number is raised whenever the same findings could give another map, or other days beside it: both are pooled anew, takes aren't heard again. */
export const POOLING = `${ENGINE}/5`;
