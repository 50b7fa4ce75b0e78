import { answered, problem } from '@/server/http';
import { photos } from '@/server/store';

export const dynamic = 'force-dynamic';

/** A picture of a log. Its name is that of its bytes: it never changes. */
export const GET = answered<{ params: Promise<{ id: string }> }>(async (_, { params }) => {
  const photo = photos().open((await params).id);
  if (!photo) return problem(404, 'No such picture', 'This picture is not kept here.');
  return new Response(new Uint8Array(photo.bytes), {
    headers: { 'content-type': photo.type, 'cache-control': 'private, max-age=31536000, immutable' },
  });
});
