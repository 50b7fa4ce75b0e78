/** Stands where a part of the page is still on its way. */
export function Loading() {
  return (
    <p className="py-2 text-quiet" aria-live="polite">
      A moment…
    </p>
  );
}
