import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="mx-auto mt-24 max-w-md px-5 text-center">
      <h1 className="text-[24px] font-semibold">Not on the shelf</h1>
      <p className="mt-2 text-quiet">There is no such design here; it may have been deleted in another window.</p>
      <Link href="/" className="btn btn-main mt-4">
        To the shelf
      </Link>
    </main>
  );
}
