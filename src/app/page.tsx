import { SHELF_PAGE } from '@/stations/shelf/page-size';
import { Shelf } from '@/stations/shelf/shelf';
import { store } from '@/server/store';

export const dynamic = 'force-dynamic';

export default function Page() {
  const entries = store().list();
  return <Shelf entries={entries} drawn={store().summaries(entries.slice(0, SHELF_PAGE).map((e) => e.id))} />;
}
