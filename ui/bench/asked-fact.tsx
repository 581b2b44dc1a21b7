'use client';
import { tr } from '../../core/locale/translate';
import { useRouter } from '../kit/router';
import type { RunView } from '../../application/views';
import { Button } from '../kit/button';
import { OtherProblems } from '../kit/form';
import { useMay, usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

/**
 * What must be known of the part before this test: as it is said once it is known; `null`: nobody has said it
 * yet.
 */
export function factOf({ definition: { asks }, unit }: RunView): string | null {
  const known = asks && unit.parts[asks.what];
  return known ? asks.say.replace('{}', known) : null;
}

/** A fact about the part, asked once of a unit. */
export function AskedFact({ view }: { view: RunView }) {
  const { definition, unit } = view;
  const { asks } = definition;
  const router = useRouter();
  const by = usePerson();
  const may = useMay('unit.note-parts');
  const { busy, problems, post } = useSend();
  if (!asks || !may || unit.parts[asks.what]) return null;
  async function say(code: string): Promise<void> {
    if (!asks || !(await post(`/api/units/${unit.id}/parts`, { by, part: asks.what, code }))) return;
    router.refresh();
    document.getElementById('entry')?.focus();
  }
  return (
    <div role="group" aria-label={tr`Which ${asks.what}?`} className="mt-2">
      <p className="font-semibold">Which {asks.what}? It stands on the part.</p>
      <div className="mt-1 flex flex-wrap gap-2">
        {asks.options.map((o) => (
          <Button key={o} className="px-3" disabled={busy} onClick={() => void say(o)}>
            {o}
          </Button>
        ))}
      </div>
      <OtherProblems problems={problems} paths={[]} />
    </div>
  );
}
