import { signedIn } from '@/server/people/sign-in';
import { guard } from '../handler';

export const dynamic = 'force-dynamic';

/** Who is signed in on this device. */
export const GET = (request: Request) => guard(async () => Response.json(await signedIn(request.headers)));
