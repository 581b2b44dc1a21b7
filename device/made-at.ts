/** Stands in for `server/journal/made-at.ts` on a device, which does one thing after the other. */
let moment: Date | undefined;

export const madeAt = (): Date | undefined => moment;

export async function withMadeAt<T>(at: Date | null, work: () => Promise<T>): Promise<T> {
  moment = at ?? undefined;
  try {
    return await work();
  } finally {
    moment = undefined;
  }
}
