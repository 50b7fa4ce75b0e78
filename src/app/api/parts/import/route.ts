import { NextResponse } from 'next/server';
import { CSV_CHARACTERS_MAX, readPartsCsv } from '@/core/drawer/csv';
import { answered, problem, readJson } from '@/server/http';
import { drawer } from '@/server/store';

export const dynamic = 'force-dynamic';

/**
 * Takes a parts file: all its rows, or with `refused: n` those that are left when exactly n were refused before the
 * person's eyes. All in one transaction: nothing is ever half taken.
 */
export const POST = answered(async (request) => {
  const body = await readJson(request, 1.2 * CSV_CHARACTERS_MAX);
  if (!body.ok) return body.answer;
  const { text, refused = 0 } = (body.value ?? {}) as { text?: unknown; refused?: unknown };
  if (typeof text !== 'string') return problem(422, 'Not a parts file', 'The text of the file is missing.');
  const read = readPartsCsv(text);
  if (!read.ok) return problem(422, 'Not a parts file', read.error);
  const errors = read.rows.flatMap((r) => ('error' in r ? [r.error] : []));
  if (errors.length !== refused) {
    return problem(422, 'Rows refused', `${errors.length} rows cannot be taken. The first: ${errors[0] ?? 'none'}`, {
      errors: errors.slice(0, 200),
    });
  }
  const taken = drawer().addAll(read.rows.flatMap((r) => ('part' in r ? [r.part] : [])));
  return NextResponse.json({ taken }, { status: 201 });
});
