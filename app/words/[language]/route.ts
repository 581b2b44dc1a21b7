import { translationOf } from '@/server/locale/translations';

interface Context {
  params: Promise<{ language: string }>;
}

/** The words of a language as a script that runs before a page is drawn. */
export async function GET(_: Request, { params }: Context): Promise<Response> {
  const { language } = await params;
  const texts = translationOf(language);
  if (!texts) return new Response('Not found.', { status: 404 });
  // "<" could end the script where somebody puts it into a page.
  const json = JSON.stringify({ language, texts }).replaceAll('<', '\\u003c');
  return new Response(`globalThis.mudflatWords=${json};`, {
    headers: { 'content-type': 'text/javascript; charset=utf-8', 'cache-control': 'private, max-age=60' },
  });
}
