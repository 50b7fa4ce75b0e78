'use client';

import { FileUp } from 'lucide-react';
import Link from 'next/link';
import { useRef, useState } from 'react';
import type { Design } from '@/core/design/design';
import { LOG_TEXT_MAX, NAME_MAX } from '@/core/design/how-many';
import { Alert } from '@/ui/alert';
import type { Refusal } from '@/ui/api';
import { readDesignFile, readDesignText, type FoundDesign } from '@/ui/design-file';
import { Preview } from './preview';
import { TextField } from './text-field';
import { Awaited, WayIn } from './way-in';

/** A file: a design exported before, here or elsewhere. */
export function FromFile() {
  const input = useRef<HTMLInputElement>(null);
  const [read, setRead] = useState<{ from: string; design: Design; repairs: string[] } | null>(null);
  const [refused, setRefused] = useState<(Refusal & { id?: string }) | null>(null);
  const [pasted, setPasted] = useState('');
  const [name, setName] = useState('');
  function show(from: string, found: FoundDesign) {
    setRead(found.ok ? { from, design: found.design, repairs: found.repairs } : null);
    setRefused(found.ok ? null : { ...found.refusal, ...(found.id ? { id: found.id } : {}) });
  }
  const take = async (chosen: File) => show(chosen.name, await readDesignFile(chosen));
  const takeText = async () => show('what was pasted', await readDesignText(pasted, 'what was pasted'));
  return (
    <WayIn
      form={
        <div
          className="space-y-3"
          onDragOver={(e) => e.preventDefault()}
          onDrop={(e) => {
            e.preventDefault();
            const chosen = e.dataTransfer.files[0];
            if (chosen) void take(chosen);
          }}
        >
          <button type="button" className="btn" onClick={() => input.current?.click()}>
            <FileUp size={16} /> Choose a file
          </button>
          <input
            ref={input}
            type="file"
            accept=".json,.md,.html,.txt"
            className="hidden"
            aria-label="File of a design"
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              e.target.value = '';
              if (chosen) void take(chosen);
            }}
          />
          <p className="text-[14px] text-quiet">
            A design as JSON, of this version or an older one, the Markdown of a sheet, a shared page; or drop it here.
          </p>
          <label className="block text-[14px]">
            Or paste it, or what the code of a label says
            <textarea
              className="field !h-auto min-h-[64px] py-1 font-mono text-[13px]"
              rows={3}
              spellCheck={false}
              value={pasted}
              onChange={(e) => setPasted(e.target.value)}
            />
          </label>
          <button type="button" className="btn" disabled={pasted.trim() === ''} onClick={() => void takeText()}>
            Read what was pasted
          </button>
          {read && <p className="font-semibold">{read.from}</p>}
          {read && read.repairs.length > 0 && (
            <div role="status" className="border-l-[3px] border-tight pl-3 text-[14px]">
              <p className="font-semibold">Mended, so that it can be read:</p>
              <ul>
                {read.repairs.map((r, n) => (
                  <li key={n}>{r}</li>
                ))}
              </ul>
            </div>
          )}
          {refused && (
            <Alert>
              {refused.path && <code className="font-semibold">{refused.path}</code>}
              {refused.path && ': '}
              {refused.sentence}{' '}
              {refused.id && (
                <Link className="font-semibold underline" href={`/design/${encodeURIComponent(refused.id)}`}>
                  Look for it on this shelf
                </Link>
              )}
            </Alert>
          )}
          <TextField label="Name" hint="optional" value={name} onChange={(e) => setName(e.target.value)} />
        </div>
      }
      proposal={
        <Preview
          design={read && { ...read.design, name: name.trim().slice(0, NAME_MAX) || read.design.name }}
          lead="As it stands in the file."
          {...(read
            ? {
                keptAs: {
                  name: 'As imported',
                  why: [`From ${read.from}.`, ...read.repairs].join(' ').slice(0, LOG_TEXT_MAX),
                },
              }
            : {})}
          awaited={
            <Awaited title="The design in the file comes back,">
              solved and judged before it goes on the shelf. A file that cannot be read is told where it is wrong.
            </Awaited>
          }
        />
      }
    />
  );
}
