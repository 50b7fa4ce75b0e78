import type { Browser, CDPSession } from '@playwright/test';

/** Until the browser has come to rest after it opened a window, ms: it draws its own parts of it as pages of their own. */
const WINDOW_MS = 2000;
/** How often it is looked whether the page is there, and how long at most, ms. */
const LOOKS_MS = 200;
const PATIENCE_MS = 60_000;

/** A page as a person has it: the browser was at rest before, and nothing watches it while it loads. */
export interface PageAlone {
  /** What an expression comes to in the page; a promise is waited for. */
  evaluate<T>(expression: string): Promise<T>;
  /** Moves, presses or lets go of the mouse; until the page has taken it. */
  mouse(type: 'mouseMoved' | 'mousePressed' | 'mouseReleased', x: number, y: number): Promise<void>;
  close(): Promise<void>;
}

/**
 * Opens a page nobody debugs. What drives a page for tests keeps a second world of script in it and has the stack of
 * everything thrown described: nearly half of what a load's tasks took beyond 50 ms.
 * @param there an expression that comes to true once the page is there
 * @throws Error when it is not there in a minute
 */
export async function pageAlone(browser: Browser, url: string, there: string): Promise<PageAlone> {
  const session = await browser.newBrowserCDPSession();
  const { browserContextId } = await session.send('Target.createBrowserContext');
  const { targetId } = await session.send('Target.createTarget', {
    url: 'about:blank',
    browserContextId,
    width: 1280,
    height: 800,
    newWindow: true,
  });
  await new Promise((rested) => setTimeout(rested, WINDOW_MS));
  const ask = asking(session, (await session.send('Target.attachToTarget', { targetId, flatten: false })).sessionId);
  const evaluate = async <T>(expression: string): Promise<T> => {
    const answer = await ask('Runtime.evaluate', { expression, awaitPromise: true, returnByValue: true });
    const { result, exceptionDetails } = answer as { result: { value: T }; exceptionDetails?: { text: string } };
    if (exceptionDetails) throw new Error(`in ${url}: ${exceptionDetails.text}`);
    return result.value;
  };
  await ask('Page.navigate', { url });
  for (const began = performance.now(); !(await evaluate(there));) {
    if (performance.now() - began > PATIENCE_MS) throw new Error(`${url} is not there after a minute`);
    await new Promise((later) => setTimeout(later, LOOKS_MS));
  }
  let buttons = 0;
  return {
    evaluate,
    mouse: async (type, x, y) => {
      if (type === 'mousePressed') buttons = 1;
      if (type === 'mouseReleased') buttons = 0;
      const button = type === 'mouseMoved' && buttons === 0 ? 'none' : 'left';
      await ask('Input.dispatchMouseEvent', { type, x, y, button, buttons, clickCount: 1 });
    },
    close: async () => {
      await session.send('Target.disposeBrowserContext', { browserContextId });
      await session.detach();
    },
  };
}

/** Sends the page's own session what it is asked, and waits for its answer. */
function asking(session: CDPSession, sessionId: string): (method: string, params: object) => Promise<unknown> {
  const waiting = new Map<number, { resolve(result: unknown): void; reject(error: Error): void }>();
  session.on('Target.receivedMessageFromTarget', (event) => {
    if (event.sessionId !== sessionId) return;
    const { id, result, error } = JSON.parse(event.message) as Reply;
    const asked = waiting.get(id);
    waiting.delete(id);
    if (error) asked?.reject(new Error(error.message));
    else asked?.resolve(result);
  });
  let last = 0;
  return (method, params) =>
    new Promise((resolve, reject) => {
      const id = ++last;
      waiting.set(id, { resolve, reject });
      session
        .send('Target.sendMessageToTarget', { sessionId, message: JSON.stringify({ id, method, params }) })
        .catch(reject);
    });
}

interface Reply {
  id: number;
  result?: unknown;
  error?: { message: string };
}
