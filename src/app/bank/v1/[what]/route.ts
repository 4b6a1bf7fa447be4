import { NextResponse, type NextRequest } from 'next/server';
import { parseIsoDay } from '@/core/calendar';
import { BankService } from '@/demo/bankService';

/** One service for the life of the server, also when the code is loaded anew while developing. */
const kept = globalThis as { tellanBank?: BankService };
const service = (kept.tellanBank ??= new BankService());

const not = (status: number, error: string) => NextResponse.json({ error }, { status });

type Context = { readonly params: Promise<{ readonly what: string }> };

/** The simulated bank: `accounts`, `statement?account=N&after=YYYY-MM-DD&to=YYYY-MM-DD` (docs/feed.md). */
export async function GET(request: NextRequest, { params }: Context) {
  const { what } = await params;
  const query = request.nextUrl.searchParams;
  if (what === 'accounts') return NextResponse.json({ accounts: service.accounts() });
  if (what !== 'statement') return not(404, 'No such path');
  const [after, to] = ['after', 'to'].map((name) => parseIsoDay(query.get(name) ?? ''));
  if (!after || !to || to <= after)
    return not(400, 'after and to must be days, YYYY-MM-DD, one before the other');
  const statement = service.statement(query.get('account') ?? '', after, to);
  if (statement === null) return not(404, 'No such account');
  return new NextResponse(statement, { headers: { 'content-type': 'application/xml; charset=utf-8' } });
}
