/** What is said to the process of a sweep to end it. */
export const STOP = 'stop';
