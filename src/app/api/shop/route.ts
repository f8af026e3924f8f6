import { firstIssue } from '@/core/document/issue';
import { hasPartKind } from '@/core/parts';
import { shopOrderSchema } from '@/core/shop/offer';
import { order, search } from '@/core/shop/shop';

/*
 * The simulated parts shop’s service. `?weather=` switches on what an outside service may do: answer
 * slowly, fail, answer with what is no answer, or have run out.
 */

const SLOW_MS = 4000;
/** Longest search that is looked at. */
const LONGEST = 200;

export const dynamic = 'force-dynamic';

type Weather = 'fair' | 'slow' | 'failing' | 'garbled' | 'sold-out';

const weatherOf = (url: URL): Weather => (url.searchParams.get('weather') ?? 'fair') as Weather;

/** What the weather makes of an answer. */
async function answered(weather: Weather, answer: () => unknown): Promise<Response> {
  if (weather === 'slow') await new Promise((resolve) => setTimeout(resolve, SLOW_MS));
  if (weather === 'failing')
    return Response.json({ problem: 'The shop is closed for stocktaking.' }, { status: 503 });
  if (weather === 'garbled') return new Response('<html>Welcome to the shop</html>');
  return Response.json(answer());
}

export function GET(request: Request): Promise<Response> {
  const url = new URL(request.url);
  const text = (url.searchParams.get('q') ?? '').slice(0, LONGEST);
  const kind = url.searchParams.get('kind') ?? '';
  const value = Number(url.searchParams.get('value') ?? NaN);
  const weather = weatherOf(url);
  return answered(weather, () =>
    search(
      {
        text,
        ...(hasPartKind(kind) ? { kind } : {}),
        ...(value > 0 && Number.isFinite(value) ? { value } : {}),
      },
      weather === 'sold-out',
    ),
  );
}

export async function POST(request: Request): Promise<Response> {
  const weather = weatherOf(new URL(request.url));
  let document: unknown;
  try {
    document = await request.json();
  } catch {
    return Response.json({ problem: 'The order is no JSON.' }, { status: 400 });
  }
  const parsed = shopOrderSchema.safeParse(document);
  if (!parsed.success) {
    const { path, message } = firstIssue(parsed.error, document);
    return Response.json({ problem: `${path || 'the order'} ${message}.` }, { status: 400 });
  }
  return answered(weather, () => order(parsed.data, weather === 'sold-out'));
}
