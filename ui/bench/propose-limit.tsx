'use client';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { RunView } from '../../application/views';
import { entryOfDraft } from '../specifications/draft';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems } from '../kit/form';
import { useMay, usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

const FIELDS = ['lower', 'upper', 'watchUpper', 'source'] as const;
const LIMITS = '/entry/limits';
const PATHS = [...FIELDS.map((f) => (f === 'source' ? '/entry/source' : `${LIMITS}/${f}`)), '/entry/document'];

/**
 * Another limit for this engine family, proposed from the bench with its source. It is a draft: it judges the
 * next test at once and says that nobody has approved it; a lead approves it on the shelf and may judge this
 * one again by it.
 */
export function ProposeLimit({ view, isDoubted }: { view: RunView; isDoubted: boolean }) {
  const may = useMay('limits.draft');
  const [isOpen, setOpen] = useState(false);
  const [isKept, setKept] = useState(false);
  if (!may) return null;
  if (isKept)
    return (
      <p role="status" className="mt-1 font-semibold text-eelgrass">
        It is on the shelf as a draft for {view.unit.family}: it judges the next test there, and a lead can judge this
        one again by it.
      </p>
    );
  return (
    <>
      {isDoubted && <p className="mt-1 font-semibold">Is the limit of this type another one?</p>}
      <Button className="mt-1 px-3" onClick={() => setOpen(true)}>
        Propose another limit
      </Button>
      {isOpen && (
        <Proposal
          view={view}
          onClose={() => setOpen(false)}
          onKept={() => {
            setOpen(false);
            setKept(true);
          }}
        />
      )}
    </>
  );
}

function Proposal({ view, onClose, onKept }: { view: RunView; onClose: () => void; onKept: () => void }) {
  const { limits } = view.specification;
  const by = usePerson();
  const [id] = useState(() => v7());
  const [draft, setDraft] = useState<Draft>({});
  const { busy, problems, setProblems, post } = useSend();
  const fields = {
    draft,
    problems,
    onChange: (field: string, value: string) => setDraft((d) => ({ ...d, [field]: value })),
  };
  async function keep(): Promise<void> {
    if (!draft.lower?.trim() && !draft.upper?.trim()) {
      setProblems([{ path: `${LIMITS}/lower`, message: 'Give the lowest or the highest good value.' }]);
      return;
    }
    const entry = entryOfDraft({
      ...draft,
      test: view.test,
      scope: 'family',
      of: view.unit.family,
      status: 'draft',
      quantity: limits.quantity,
      unit: limits.unit,
      // What makes an open and a short is a matter of the meter and not of the type of part.
      openAbove: limits.openAbove?.toString() ?? '',
    });
    if (!entry.ok) setProblems(entry.error);
    else if (await post('/api/specifications', { id, by, entry: entry.value })) onKept();
  }
  return (
    <FormDialog
      onClose={onClose}
      title={tr`Another limit for ${view.unit.family}`}
      description={tr`${view.definition.name}, in ${limits.unit}. A draft until a lead approves it.`}
      onSubmit={() => void keep()}
    >
      <DraftField {...fields} field="lower" label="At least" path={`${LIMITS}/lower`} />
      <DraftField {...fields} field="upper" label="At most" path={`${LIMITS}/upper`} />
      <DraftField
        {...fields}
        field="source"
        label="Where it is from"
        path="/entry/source"
        hint="document and page, or who says so"
      />
      <OtherProblems problems={problems} paths={PATHS} />
      <Button type="submit" tone="strong" disabled={busy}>
        Keep as a draft
      </Button>
    </FormDialog>
  );
}
