import { answered } from '@/server/http';
import { conversationLog } from '@/server/instruments/hub';

export const dynamic = 'force-dynamic';

/** Every line sent and answered, as text. */
export const GET = answered(() => {
  const text = conversationLog()
    .map((s) => `${s.at} ${s.to.padEnd(6)} ${s.way.padEnd(8)} ${s.text}`)
    .join('\n');
  return new Response(`${text}\n`, { headers: { 'content-type': 'text/plain; charset=utf-8' } });
});
