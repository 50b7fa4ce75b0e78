import { gzipSync } from 'node:zlib';

/** Scripts a page asks for before it stands, bytes gzipped, by their address. @param base of the running program */
export async function scriptBytes(base: string, page: string): Promise<Map<string, number>> {
  const html = await (await fetch(base + page)).text();
  const scripts = [...html.matchAll(/<script(?![^>]*noModule)[^>]*? src="([^"]+)"/gi)].map((match) => match[1]!);
  const weigh = async (url: string): Promise<[string, number]> => {
    const script = await (await fetch(base + url)).arrayBuffer();
    return [url, gzipSync(Buffer.from(script)).length];
  };
  return new Map(await Promise.all([...new Set(scripts)].map(weigh)));
}
