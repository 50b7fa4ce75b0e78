import { NextResponse } from 'next/server';
import { answered } from '@/server/http';
import { identify, playing, reachable, sweeping } from '@/server/instruments/hub';
import { instruments } from '@/server/store';

export const dynamic = 'force-dynamic';

/** The instruments that were entered, each with what it says it is; what the stand-ins play. */
export const GET = answered(async () => {
  const kept = await Promise.all(reachable(instruments()).map(async (i) => ({ ...i, ...(await identify(i)) })));
  return NextResponse.json({
    instruments: kept,
    playing: playing(),
    sweeping: sweeping(),
    demo: process.env['EMBER_RAIL_DEMO'] === '1',
  });
});
