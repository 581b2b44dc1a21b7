import { DEVICE_TICKET_HEADER } from '@/formats/waiting';
import { deviceKey, deviceOfTicket, knownDevice, ticketOf } from '@/server/people/known-device';
import { answerNotFound, handleRead } from '../handler';

export const dynamic = 'force-dynamic';

/**
 * What this device encrypts its copy with, base64; only for a device on which somebody has signed in. A
 * browser whose cookies were cleared is still the same device: it shows the ticket that it keeps beside its
 * copy.
 */
export const GET = (request: Request) =>
  handleRead(request, (actor) => {
    const device = deviceOfTicket(request.headers.get(DEVICE_TICKET_HEADER) ?? '') ?? knownDevice(request.headers);
    return Promise.resolve(
      device
        ? Response.json(
            {
              device,
              ticket: ticketOf(device),
              key: deviceKey(device).toString('base64'),
              person: { name: actor.name, role: actor.role, depotId: actor.depotId },
            },
            { headers: { 'cache-control': 'no-store' } },
          )
        : answerNotFound('device'),
    );
  });
