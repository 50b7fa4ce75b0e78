'use client';

import { demoDesigns } from '@/core/design/demo-designs';
import { NAME_MAX } from '@/core/design/how-many';
import { ratingWords } from '@/core/design/words';
import { useKeptTexts } from './kept-text';
import { OneOf } from './one-of';
import { Preview } from './preview';
import { TextField } from './text-field';
import { Awaited, WayIn } from './way-in';

const EXAMPLES = demoDesigns();

/** An example: a supply of the observatory, to be looked at and taken apart. */
export function FromExample() {
  const [texts, setTexts] = useKeptTexts('example', { chosen: '', name: '' });
  const chosen = EXAMPLES.find((d) => d.name === texts['chosen']);
  const name = texts['name']!.trim().slice(0, NAME_MAX);
  return (
    <WayIn
      form={
        <div className="space-y-3">
          <OneOf
            legend="Supplies of a small coastal observatory"
            options={EXAMPLES.map((d) => ({ id: d.name, name: d.name, what: ratingWords(d) }))}
            chosen={texts['chosen']}
            onChoose={(id) => setTexts({ chosen: id })}
          />
          <TextField
            label="Name"
            hint="optional"
            value={texts['name']!}
            onChange={(e) => setTexts({ name: e.target.value })}
          />
        </div>
      }
      proposal={
        <Preview
          design={chosen ? { ...chosen, name: name || `${chosen.name.slice(0, NAME_MAX - 6)}, mine` } : null}
          lead={chosen?.note ?? ''}
          awaited={
            <Awaited title="A whole supply comes back,">
              one that passes or one in trouble, of every kind: regulated, unregulated, split, with valves, from a
              battery. It is a copy; change what you like.
            </Awaited>
          }
        />
      }
    />
  );
}
