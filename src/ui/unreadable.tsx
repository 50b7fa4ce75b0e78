import type { UnreadableDesign } from '@/server/designs';
import { NoticePage } from './notice-page';
import { SaveStored } from './save-stored';

/** A design whose stored text this program cannot read: what is wrong, and the text itself to take along. */
export function Unreadable({ name, sentence, text }: UnreadableDesign) {
  return (
    <NoticePage title={`‘${name}’ cannot be read`} actions={<SaveStored name={name} text={text} />}>
      <p>{sentence}</p>
      <p className="text-quiet">
        Nothing was changed, and everything else on the shelf is untouched. The text as it was stored can be taken along
        and mended by hand, then imported again.
      </p>
    </NoticePage>
  );
}
