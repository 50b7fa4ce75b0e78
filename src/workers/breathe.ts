/** Lets whatever waits on this thread have its turn. */
export const breathe = () => new Promise<void>((resolve) => setTimeout(resolve));
