import { deviceKey, knownDevice } from '@/server/people/known-device';
import { answerNotFound, handleRead } from '../handler';

export const dynamic = 'force-dynamic';

/** What this device encrypts its copy with, base64; only for a device on which somebody has signed in. */
export const GET = (request: Request) =>
  handleRead(request, (actor) => {
    const device = knownDevice(request.headers);
    return Promise.resolve(
      device
        ? Response.json(
            {
              device,
              key: deviceKey(device).toString('base64'),
              person: { name: actor.name, role: actor.role, depotId: actor.depotId },
            },
            { headers: { 'cache-control': 'no-store' } },
          )
        : answerNotFound('device'),
    );
  });
