'use client';
import { FileDown, FileUp } from 'lucide-react';
import { useState } from 'react';
import type { KitPlan } from '../../application/views';
import { Button, buttonLook } from '../kit/button';
import { ImportFile } from '../kit/import-file';
import { useMay } from '../kit/session';
import { Title } from './title';

/** What this workshop knows, as a file for another one; and the way in for such a file. */
export function StarterKit({ onDone }: { onDone: () => void }) {
  const mayTake = useMay('workshop.change');
  const [taking, setTaking] = useState(false);
  return (
    <section aria-label="Starter kit">
      <Title text="Starter kit">
        {mayTake && (
          <Button onClick={() => setTaking(true)}>
            <FileUp size={18} aria-hidden="true" />
            Take one in
          </Button>
        )}
        <a className={buttonLook()} href="/api/workshop/kit" download>
          <FileDown size={18} aria-hidden="true" />
          Pass ours on
        </a>
      </Title>
      <p className="text-soft">
        Engine families, tests and circuits of our own, limits, fitting values and connectors in one file. No unit,
        person or job is in it. Approved limits of a kit come in as drafts until a lead here approves them; rules of
        thumb stay what they are.
      </p>
      {taking && (
        <ImportFile<KitPlan>
          title="A starter kit"
          description="JSON, as “Pass ours on” writes it. Nothing is taken before you have seen what it changes."
          url="/api/workshop/kit/import"
          types={[['.json', 'application/json']]}
          things={['thing', 'things']}
          changes={(plan) => plan.rows.filter((r) => r.action !== 'unchanged').length}
          show={(plan) => (
            <ul className="max-h-72 overflow-y-auto">
              {plan.rows.map((r, i) => (
                <li key={`${i} ${r.what}`}>
                  {r.what}: <b>{r.action}</b>
                </li>
              ))}
            </ul>
          )}
          onClose={() => setTaking(false)}
          onDone={() => {
            setTaking(false);
            onDone();
          }}
        />
      )}
    </section>
  );
}
