'use client';

import type { Design, LoadRow } from '@/core/design/design';
import type { SweepEnd, SweepPlan } from '@/core/instrument/sweep';
import { json } from '@/ui/api';

/** A stopped sweep is waited for so long to say how it ended, ms: an instrument may be silent for three seconds. */
const LAST_WORD_MS = 10_000;

/**
 * Runs a sweep on the server and hands over each row as it comes. `stop` ends it; it is then waited for, so that what
 * is told of the load is what the load said.
 * @returns how it ended, or a sentence where it never began or nobody knows
 */
export async function runRemoteSweep(
  body: { design: Design; plan: SweepPlan; metal: boolean },
  stop: AbortSignal,
  onRow: (row: LoadRow) => void,
): Promise<SweepEnd | { fault: string }> {
  const gone = new AbortController();
  stop.addEventListener('abort', () => {
    void fetch('/api/instruments/sweep', { method: 'DELETE', keepalive: true }).catch(() => gone.abort());
    setTimeout(() => gone.abort(), LAST_WORD_MS);
  });
  try {
    const response = await fetch('/api/instruments/sweep', { ...json('POST', body), signal: gone.signal });
    if (!response.ok || !response.body) {
      const said = (await response.json().catch(() => ({}))) as { detail?: string };
      return { fault: said.detail ?? `The program answered ${response.status}.` };
    }
    let heard = '';
    const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      heard += value;
      for (let end = heard.indexOf('\n'); end >= 0; end = heard.indexOf('\n')) {
        const news = JSON.parse(heard.slice(0, end)) as { row: LoadRow } | { end: SweepEnd };
        heard = heard.slice(end + 1);
        if ('end' in news) return news.end;
        onRow(news.row);
      }
    }
  } catch {
    // Told below: what matters is that nobody knows.
  }
  return {
    fault:
      'The program behind this page went away in the middle of the sweep. Its helper switches the load off; look at the load all the same.',
  };
}
