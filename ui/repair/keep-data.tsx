'use client';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Button } from '../kit/button';
import { type Draft, DraftReader } from '../kit/draft';
import { DraftField, OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { GENERAL_RULE, type CodingRule } from '../../core/repair/coding';
import type { KeepServiceData } from '../../formats/requests/service-data';

/** Keeps service data with its source; a lead's to do. */
export function useKeepData(): {
  busy: boolean;
  problems: ReturnType<typeof useSend>['problems'];
  keep: (data: Omit<KeepServiceData, 'id' | 'by'>) => Promise<boolean>;
} {
  const router = useRouter();
  const by = usePerson();
  const { busy, problems, post } = useSend();
  return {
    busy,
    problems,
    keep: async (data) => {
      const done = await post('/api/service-data', { id: v7(), by, ...data });
      if (done) router.refresh();
      return done !== null;
    },
  };
}

const CHECKS = [
  ['none', 'no check character known'],
  ['mod-10', 'last digit, weights 3 and 1'],
  ['mod-alphabet', 'last character, places in the alphabet'],
] as const;

/** How trim codes of a family look: alphabet, lengths, check. */
export function CodingRuleForm({
  family,
  part,
  rule,
  onDone,
}: {
  family: string;
  part: string;
  rule: CodingRule;
  onDone: () => void;
}) {
  const [draft, setDraft] = useState<Draft>({
    alphabet: rule.alphabet,
    lengths: rule.lengths.join(', '),
    check: rule.check,
    groups: String(rule === GENERAL_RULE ? 4 : rule.groups),
    source: '',
  });
  const { busy, problems, keep } = useKeepData();
  const f = { draft, problems, onChange: (field: string, value: string) => setDraft({ ...draft, [field]: value }) };
  async function save(): Promise<void> {
    const read = new DraftReader(draft);
    const lengths = (read.text('lengths') ?? '')
      .split(/[^\d]+/)
      .filter(Boolean)
      .map(Number);
    const body: CodingRule = {
      alphabet: (read.text('alphabet') ?? '').toUpperCase(),
      lengths,
      check: draft.check as CodingRule['check'],
      groups: read.number('groups', '/body/groups') ?? 4,
    };
    if (await keep({ family, kind: 'coding', key: part, body, source: read.text('source') ?? '' })) onDone();
  }
  return (
    <form
      noValidate
      aria-label="How these codes look"
      className="my-2 rounded-lg border border-line p-3"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <DraftField {...f} field="alphabet" path="/body/alphabet" label="Characters that occur" mono />
      <DraftField {...f} field="lengths" path="/body/lengths" label="Lengths" hint="30, or 24, 30; empty: any" mono />
      <DraftField {...f} field="check" path="/body/check" label="Check" options={CHECKS} />
      <DraftField {...f} field="groups" path="/body/groups" label="Printed in groups of" mono />
      <DraftField {...f} field="source" path="/source" label="Source" hint="document, page, revision" />
      <OtherProblems problems={problems} paths={['/body', '/source']} />
      <Button type="submit" tone="strong" disabled={busy}>
        Keep for {family}
      </Button>
    </form>
  );
}
