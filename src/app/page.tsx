import { Shelf } from '@/stations/shelf/shelf';
import { store } from '@/server/store';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <Shelf entries={store().list()} />;
}
