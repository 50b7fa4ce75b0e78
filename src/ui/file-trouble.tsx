import { TakeTheCopy } from './take-the-copy';

interface Props {
  kind: string;
  sentence: string;
  file: string;
  /** The newest sound copy beside it; null for none. */
  copy: string | null;
}

/** The file everything is kept in cannot be used: what is wrong, and what to do. */
export function FileTrouble({ kind, sentence, file, copy }: Props) {
  return (
    <main className="mx-auto mt-24 max-w-xl px-5">
      <h1 className="text-[24px] font-semibold">The file cannot be used</h1>
      <p className="mt-2">{sentence}</p>
      {kind === 'corrupt' && (
        <>
          <p className="mt-2 text-quiet">
            {copy
              ? 'The newest sound copy lies beside it. Taking it puts the damaged file aside under another name; nothing is deleted.'
              : 'No copy lies beside it. Put a copy of your own in its place while the program is not running; without one, move it away and the program begins with an empty shelf.'}
          </p>
          <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 text-[14px]">
            <dt className="text-quiet">File</dt>
            <dd className="break-all">{file}</dd>
            {copy && (
              <>
                <dt className="text-quiet">Copy</dt>
                <dd className="break-all">{copy}</dd>
              </>
            )}
          </dl>
          {copy && <TakeTheCopy />}
        </>
      )}
    </main>
  );
}
