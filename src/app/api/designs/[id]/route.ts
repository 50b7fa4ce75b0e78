import { NextResponse, type NextRequest } from 'next/server';
import * as yup from 'yup';
import { readDesign } from '@/core/design/schema';

import { store } from '@/server/store';
import { problem, readJson, refuseForeign } from '@/server/http';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };

const saveSchema = yup.object({
  revision: yup.number().strict(true).integer().min(1).required(),
  design: yup.mixed().required(),
});

export async function GET(request: NextRequest, { params }: Context) {
  const refused = refuseForeign(request);
  if (refused) return refused;
  const stored = store().get((await params).id);
  return stored ? NextResponse.json(stored) : missing();
}

/** Saves over the revision the writer last saw. 409 with the newer one when somebody else saved in between. */
export async function PUT(request: NextRequest, { params }: Context) {
  const refused = refuseForeign(request);
  if (refused) return refused;
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  if (!saveSchema.isValidSync(body.value))
    return problem(422, 'Not a save', 'A save needs the design and the revision it was made from.', {
      path: 'revision',
    });
  const read = readDesign(body.value.design);
  if (!read.ok) return problem(422, 'Not a design', read.fault.sentence, { path: read.fault.path });
  const result = store().save((await params).id, read.design, body.value.revision);
  if (result.ok) return NextResponse.json({ revision: result.stored.revision, updatedAt: result.stored.updatedAt });
  if (result.reason === 'missing') return missing();
  return problem(409, 'Changed elsewhere', 'This design was changed in another window since you opened it.', {
    current: result.stored,
  });
}

export async function DELETE(request: NextRequest, { params }: Context) {
  const refused = refuseForeign(request);
  if (refused) return refused;
  return store().remove((await params).id) ? new NextResponse(null, { status: 204 }) : missing();
}

/** Takes a deletion back. */
export async function POST(request: NextRequest, { params }: Context) {
  const refused = refuseForeign(request);
  if (refused) return refused;
  return store().restore((await params).id) ? new NextResponse(null, { status: 204 }) : missing();
}

function missing() {
  return problem(
    404,
    'Not on the shelf',
    'There is no such design on the shelf; it may have been deleted in another window.',
  );
}
