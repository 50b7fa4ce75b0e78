import { NextResponse } from 'next/server';
import * as yup from 'yup';
import { readDesign } from '@/core/design/schema';
import { answered, problem, readJson } from '@/server/http';
import { store } from '@/server/store';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };

const saveSchema = yup.object({
  revision: yup.number().strict(true).integer().min(1).required(),
  /** The writer's own name for this save: sent again, it is answered again. */
  save: yup.string().strict(true).max(60),
  design: yup.mixed().required(),
});

/** A design with its revision; of a row that cannot be read the text as it was stored. */
export const GET = answered<Context>(async (_, { params }) => {
  const found = store().open((await params).id);
  if (!found) return missing();
  if (found.ok) return NextResponse.json(found.stored);
  const { name, sentence, text } = found.unreadable;
  return problem(422, 'Cannot be read', sentence, { name, text });
});

/** Saves over the revision the writer last saw. 409 with the newer one when somebody else saved in between. */
export const PUT = answered<Context>(async (request, { params }) => {
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  if (!saveSchema.isValidSync(body.value))
    return problem(422, 'Not a save', 'A save needs the design and the revision it was made from.', {
      path: 'revision',
    });
  const read = readDesign(body.value.design);
  if (!read.ok) return problem(422, 'Not a design', read.fault.sentence, { path: read.fault.path });
  const result = store().save((await params).id, read.design, body.value.revision, body.value.save ?? null);
  if (result.ok) return NextResponse.json({ revision: result.revision, updatedAt: result.updatedAt });
  if (result.reason === 'missing') return missing();
  return problem(409, 'Changed elsewhere', 'This design was changed in another window since you opened it.', {
    current: result.stored,
  });
});

export const DELETE = answered<Context>(async (_, { params }) =>
  store().remove((await params).id) ? new NextResponse(null, { status: 204 }) : missing(),
);

/** Takes a deletion back. */
export const POST = answered<Context>(async (_, { params }) =>
  store().restore((await params).id) ? new NextResponse(null, { status: 204 }) : missing(),
);

function missing() {
  return problem(
    404,
    'Not on the shelf',
    'There is no such design on the shelf; it may have been deleted in another window.',
  );
}
