import { NextResponse } from 'next/server';
import * as yup from 'yup';
import { LOG_TEXT_MAX, REVISION_NAME_MAX } from '@/core/design/how-many';
import { readDesign } from '@/core/design/schema';
import { answered, problem, readJson } from '@/server/http';
import { revisions } from '@/server/store';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };

const keepSchema = yup.object({
  /** The writer's own name for it: sent again, it is kept once. */
  id: yup.string().strict(true).required('It needs an id of its own.').max(60),
  name: yup
    .string()
    .strict(true)
    .trim()
    .required('A revision needs a name: as built, or second version.')
    .max(REVISION_NAME_MAX, `A name holds ${REVISION_NAME_MAX} letters.`),
  why: yup.string().strict(true).defined('Why is missing.').max(LOG_TEXT_MAX, `Why holds ${LOG_TEXT_MAX} letters.`),
  unlessKept: yup.boolean().strict(true),
  design: yup.mixed().required('The design is missing.'),
});

/** What is kept of a design under a name, the newest first. */
export const GET = answered<Context>(async (_, { params }) => NextResponse.json(revisions().list((await params).id)));

/** Keeps a state of a design under a name. */
export const POST = answered<Context>(async (request, { params }) => {
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  let asked;
  try {
    asked = keepSchema.validateSync(body.value);
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    return problem(422, 'Not kept', error.message, { path: error.path ?? '' });
  }
  const read = readDesign(asked.design);
  if (!read.ok) return problem(422, 'Not a design', read.fault.sentence, { path: read.fault.path });
  const { id } = await params;
  if (!revisions().keep(id, asked, read.design, asked.unlessKept ?? false))
    return problem(404, 'Not on the shelf', 'There is no such design to keep a revision of.');
  return NextResponse.json(revisions().list(id), { status: 201 });
});
