let last = 0;

/** A number for work in the worker that may be dropped. */
export const nextJob = () => ++last;
