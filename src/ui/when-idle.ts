/** Does what can wait once the page has nothing else to do. @returns calls it off */
export function whenIdle(work: () => void): () => void {
  const id = window.requestIdleCallback(work, { timeout: 5000 });
  return () => window.cancelIdleCallback(id);
}
