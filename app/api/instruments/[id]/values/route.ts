import { QUANTITIES, type Quantity } from '@/core/quantity/units';
import { problemDetails } from '@/formats/problem';
import { serverDb } from '@/server/db/connection';
import { findInstrument } from '@/server/instruments/instruments';
import { canAsk } from '@/server/instruments/network-meter';
import { streamOfMeter } from '@/server/instruments/meter-stream';
import { answerNotFound, answerProblem, guard, handleAs, isId } from '../../../handler';

export const dynamic = 'force-dynamic';

const refused = (path: string, message: string, status = 422): Response =>
  answerProblem(problemDetails('This meter cannot be read.', [{ path, message }], status));

/**
 * What a meter in the network shows, line by line: server-sent events. Only of an instrument with an address
 * that a lead has entered; nothing of the request names an address.
 */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('instrument');
  return guard(() =>
    handleAs(request, 'instrument.follow', id, async () => {
      const quantity = new URL(request.url).searchParams.get('quantity') ?? '';
      if (!(QUANTITIES as readonly string[]).includes(quantity) || !canAsk(quantity as Quantity))
        return refused('/quantity', 'A meter is asked for resistance, voltage, current, frequency or temperature.');
      const found = await findInstrument(serverDb().db, id);
      if (!found) return answerNotFound('instrument');
      if (found.link?.kind !== 'network')
        return refused('', 'No lead has entered an address in the network for this instrument.');
      const stream = streamOfMeter(found.link, quantity as Quantity, request.signal);
      if (!stream) return refused('/quantity', 'Somebody reads another quantity with this meter now.', 409);
      return new Response(stream, {
        headers: {
          'content-type': 'text/event-stream',
          'cache-control': 'no-store, no-transform',
          'x-accel-buffering': 'no',
        },
      });
    }),
  );
}
