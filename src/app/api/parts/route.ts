import { NextResponse } from 'next/server';
import { KINDS, PART_KINDS, type PartKind } from '@/core/drawer/part';
import { answered, problem, readJson } from '@/server/http';
import { readPart } from '@/core/drawer/part-schema';
import { drawer } from '@/server/store';

export const dynamic = 'force-dynamic';

/** One page of one kind, filtered and sorted; with `kinds=a,b` instead, all parts of those kinds. */
export const GET = answered((request) => {
  const query = request.nextUrl.searchParams;
  const kinds = query.get('kinds')?.split(',');
  if (kinds)
    return NextResponse.json({
      parts: drawer()
        .all()
        .filter((p) => kinds.includes(p.kind)),
    });
  const kind = query.get('kind') as PartKind;
  if (!PART_KINDS.includes(kind))
    return problem(422, 'No such kind', `There is no kind of part '${String(kind).slice(0, 40)}'.`);
  const number = (key: string) => {
    const text = query.get(key);
    const value = text === null ? NaN : Number(text);
    return Number.isFinite(value) ? value : undefined;
  };
  const limits = KINDS[kind].ratings.flatMap(({ key }) => {
    const least = number(`least.${key}`);
    const most = number(`most.${key}`);
    return least === undefined && most === undefined
      ? []
      : [{ key, ...(least === undefined ? {} : { least }), ...(most === undefined ? {} : { most }) }];
  });
  const page = drawer().find({
    kind,
    words: query.get('words') ?? '',
    limits,
    inStock: query.get('stock') === '1',
    sort: query.get('sort') ?? 'name',
    offset: number('offset') ?? 0,
    limit: number('limit') ?? 100,
  });
  return NextResponse.json({ ...page, counts: drawer().counts(), uses: drawer().uses() });
});

/** Puts a part into the drawer. */
export const POST = answered(async (request) => {
  const body = await readJson(request);
  if (!body.ok) return body.answer;
  const read = readPart(body.value);
  if (!read.ok) return problem(422, 'Not a part', read.error);
  return NextResponse.json(drawer().add(read.part), { status: 201 });
});
