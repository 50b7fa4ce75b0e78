'use client';

import { FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import type { Design } from '@/core/design/design';
import { NAME_MAX } from '@/core/design/how-many';
import { Alert } from '@/ui/alert';
import type { Refusal } from '@/ui/api';
import { readDesignFile } from '@/ui/design-file';
import { Preview } from './preview';
import { TextField } from './text-field';
import { Awaited, WayIn } from './way-in';

/** A file: a design exported before, here or elsewhere. */
export function FromFile() {
  const input = useRef<HTMLInputElement>(null);
  const [read, setRead] = useState<{ file: string; design: Design } | null>(null);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [name, setName] = useState('');
  async function take(chosen: File) {
    const found = await readDesignFile(chosen);
    setRead(found.ok ? { file: chosen.name, design: found.design } : null);
    setRefusal(found.ok ? null : found.refusal);
  }
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
            accept="application/json,.json"
            className="hidden"
            aria-label="File of a design"
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              e.target.value = '';
              if (chosen) void take(chosen);
            }}
          />
          <p className="text-[14px] text-quiet">
            A design exported as JSON, of this version or an older one; or drop it here.
          </p>
          {read && <p className="font-semibold">{read.file}</p>}
          {refusal && (
            <Alert>
              {refusal.path && <code className="font-semibold">{refusal.path}</code>}
              {refusal.path && ': '}
              {refusal.sentence}
            </Alert>
          )}
          <TextField label="Name" hint="optional" value={name} onChange={(e) => setName(e.target.value)} />
        </div>
      }
      proposal={
        <Preview
          design={read && { ...read.design, name: name.trim().slice(0, NAME_MAX) || read.design.name }}
          lead="As it stands in the file."
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
