import { NextResponse, type NextRequest } from 'next/server';
import * as z from 'zod/mini';
import { whole } from '@/core/bounded';
import { parseIsoDay } from '@/core/calendar';
import { FeedDown, FeedService } from '@/demo/feedService';

/** One service for the life of the server, also when the code is loaded anew while developing. */
const kept = globalThis as { tellanFeed?: FeedService };
const service = (kept.tellanFeed ??= new FeedService());

const behavior = z.partial(
  z.object({
    failNext: whole(0, 100),
    halfNext: whole(0, 100),
    repeat: z.boolean(),
    delayMs: whole(0, 20_000),
  }),
);
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));
const not = (status: number, error: string) => NextResponse.json({ error }, { status });

const hostOf = (origin: string): string | null => (URL.canParse(origin) ? new URL(origin).host : null);

type Context = { readonly params: Promise<{ readonly what: string }> };

/** The simulated ledger feed: `company`, `entries?since=N`, `open`, `cursor?after=YYYY-MM-DD`, `settings` (docs/feed.md). */
export async function GET(request: NextRequest, { params }: Context) {
  const { what } = await params;
  const query = request.nextUrl.searchParams;
  if (what === 'settings') return NextResponse.json(service.settings);
  await wait(service.settings.delayMs);
  try {
    switch (what) {
      case 'company':
        return NextResponse.json(service.company());
      case 'entries': {
        const since = query.get('since') ?? '0';
        if (!/^\d{1,9}$/.test(since)) return not(400, 'since must be a whole number');
        if (Number(since) > service.company().last) return not(409, 'There is no such entry yet');
        return NextResponse.json(service.page(Number(since)));
      }
      case 'open':
        return NextResponse.json(service.open());
      case 'cursor': {
        const day = parseIsoDay(query.get('after') ?? '');
        if (!day) return not(400, 'after must be a day, YYYY-MM-DD');
        return NextResponse.json({ cursor: service.cursorAfter(day) });
      }
      default:
        return not(404, 'No such path');
    }
  } catch (error) {
    if (error instanceof FeedDown) return not(503, error.message);
    throw error;
  }
}

/** `close`: one more month; `settings`: how it misbehaves; `reset`: as it was at first. */
export async function POST(request: NextRequest, { params }: Context) {
  const { what } = await params;
  // The simulation is this app's own: no other page may drive it, nor a form that can send no JSON.
  const origin = request.headers.get('origin');
  if (origin !== null && hostOf(origin) !== request.headers.get('host')) return not(403, 'Not from there');
  if (!/^application\/json\b/.test(request.headers.get('content-type') ?? '')) return not(415, 'Only JSON');
  switch (what) {
    case 'close':
      return service.closeMonth()
        ? NextResponse.json(service.settings)
        : not(409, 'The simulation ends here');
    case 'settings': {
      const parsed = behavior.safeParse(await request.json().catch(() => null));
      if (!parsed.success) return not(400, 'Not settings of the feed');
      service.setBehavior(parsed.data);
      return NextResponse.json(service.settings);
    }
    case 'reset':
      service.reset();
      return NextResponse.json(service.settings);
    default:
      return not(404, 'No such path');
  }
}
