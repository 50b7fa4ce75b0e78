/**
 * Runs before anything else of the page: a click that comes before the page can answer is kept, and done once it can.
 * Links answer by themselves.
 */
export const EARLY_CLICKS = `(() => {
  const kept = [];
  const keep = (event) => {
    const control = event.target instanceof Element && event.target.closest('button,summary,input[type=checkbox],input[type=radio]');
    if (!control) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    kept.push(control);
  };
  addEventListener('click', keep, true);
  addEventListener('ember-rail-ready', () => {
    removeEventListener('click', keep, true);
    for (const control of kept) if (control.isConnected) control.click();
  }, { once: true });
})()`;
