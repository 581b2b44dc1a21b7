'use client';
import { tr } from '../../core/locale/translate';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { TraceView } from '../../application/views';
import { moment } from '../../core/signal/words';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

/** A mark at a moment of a recording, for everybody to see. */
export function MarkDialog({ trace, at_s, onClose }: { trace: TraceView; at_s: number; onClose: () => void }) {
  const router = useRouter();
  const by = usePerson();
  const [text, setText] = useState('');
  const { busy, problems, setProblems, post } = useSend();
  async function keep(): Promise<void> {
    if (text.trim() === '') {
      setProblems([{ path: '', message: 'Say what is there.' }]);
      return;
    }
    const body = { kind: 'mark', from_s: at_s, to_s: at_s, channel: null, text: text.trim() };
    if (!(await post(`/api/traces/${trace.id}/notes`, { id: v7(), by, ...body }))) return;
    router.refresh();
    onClose();
  }
  return (
    <FormDialog onClose={onClose} title={tr`Mark at ${moment(at_s)}`} onSubmit={() => void keep()}>
      <OtherProblems problems={problems} paths={[]} />
      <label className="font-semibold">
        What is there
        <input className={inputLook} value={text} onChange={(e) => setText(e.target.value)} />
      </label>
      <Button type="submit" tone="strong" className="mt-3" disabled={busy}>
        Mark it
      </Button>
    </FormDialog>
  );
}
