import { texts } from '@/core/words/said';
import { sayHere } from '@/server/language';

type Context = { params: Promise<{ token: string }> };

/** So that the page can be put on a phone's home screen. */
export async function GET(_request: Request, { params }: Context) {
  const { token } = await params;
  const name = await sayHere(texts('Practice'));
  const icon = (size: number) => ({ src: `/icon-${size}.png`, type: 'image/png', sizes: `${size}x${size}`, purpose: 'any' });
  return Response.json(
    {
      name,
      short_name: name,
      start_url: `/p/${token}`,
      scope: '/p/',
      display: 'standalone',
      background_color: '#faf6ef',
      theme_color: '#faf6ef',
      icons: [icon(192), icon(512)],
    },
    { headers: { 'content-type': 'application/manifest+json' } },
  );
}
