import { Loading } from '@/ui/loading';

/** A room on its way; the design around it stays. */
export default function RoomLoading() {
  return (
    <main aria-busy="true" className="grid flex-1 place-items-center p-8">
      <Loading />
    </main>
  );
}
