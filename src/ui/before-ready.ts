/**
 * Runs before anything else of the page. A click that comes before the page can answer is kept, and done once it can; links
 * answer by themselves. Errors made while scripts are loaded keep no trace: the libraries make some only to have them, and
 * for the first trace the machine reads a whole script a second time, which kept the page busy for 10 ms.
 */
export const BEFORE_READY = `(() => {
  const depth = Error.stackTraceLimit;
  Error.stackTraceLimit = 0;
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
    Error.stackTraceLimit = depth;
    removeEventListener('click', keep, true);
    for (const control of kept) if (control.isConnected) control.click();
  }, { once: true });
})()`;
