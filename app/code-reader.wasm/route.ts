import { readFile } from 'node:fs/promises';
import path from 'node:path';

export const dynamic = 'force-static';

/** The decoder of codes on parts, from the packages that ship with the application. */
export async function GET(): Promise<Response> {
  const bytes = await readFile(path.join(process.cwd(), 'node_modules/zxing-wasm/dist/reader/zxing_reader.wasm'));
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'application/wasm', 'cache-control': 'public, max-age=86400' },
  });
}
