import { Loading } from '@/ui/loading';

/** A place on its way; the design around it stays. */
export default function PlaceLoading() {
  return (
    <main aria-busy="true" className="grid flex-1 place-items-center p-8">
      <Loading />
    </main>
  );
}
