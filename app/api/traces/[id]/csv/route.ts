import { Samples } from '@/core/signal/samples';
import { clockFrom } from '@/application/traces/stored';
import { writeTraceCsv } from '@/formats/trace/csv-writer';
import { serverDb } from '@/server/db/connection';
import { traceSamples, viewTrace } from '@/server/traces/traces';
import { answerNotFound, answerProblem, handleRead, isId } from '../../../handler';
import { problemDetails } from '@/formats/problem';

/** The columns of one clock (`?clock=0`) as a table that reads back unchanged. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  handleRead(request, async () => {
    const { id } = await params;
    const { db } = serverDb();
    const view = isId(id) ? await viewTrace(db, id) : null;
    const which = Number(new URL(request.url).searchParams.get('clock') ?? 0);
    const head = view?.head.clocks[which];
    if (!view || !head) return answerNotFound('recording');
    const blocks = await traceSamples(db, view);
    if (!blocks)
      return answerProblem(
        problemDetails(
          'Not complete.',
          [{ path: '', message: 'Blocks of this recording are missing: it was not taken in to its end.' }],
          409,
        ),
      );
    const streams = new Map(
      view.head.streams.map((s, i) => [i, Samples.of(blocks.get(i) ?? [], s.count, s.decimals)] as const),
    );
    const columns = view.head.channels
      .filter((c) => c.clock === which)
      .map((c) => ({
        name: c.column,
        unit: c.factor === 1 ? c.unit : null,
        samples: streams.get(c.stream) as Samples,
        scale: view.head.streams[c.stream]?.scale ?? 1,
      }));
    const pieces = writeTraceCsv(clockFrom(head, streams), columns);
    const body = new ReadableStream<Uint8Array>({
      pull: (controller) => {
        const next = pieces.next();
        if (next.done) controller.close();
        else controller.enqueue(new TextEncoder().encode(next.value));
      },
    });
    return new Response(body, {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': `attachment; filename="recording-${id}.csv"`,
      },
    });
  });
