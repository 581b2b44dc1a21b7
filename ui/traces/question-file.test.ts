import type { TraceQuestion } from '../../formats/trace-question';
import type { ColumnDraft } from './columns';
import { draftsFrom, readQuestion, tableOf } from './question-file';

const question: TraceQuestion = {
  format: 'mudflat/trace-question',
  version: 1,
  data: { columns: { 'Crank, V': [0, 5, null], Clamp: [1, 2, 3] } },
  time: { rate_Hz: 1000 },
  channels: [
    { column: 'Crank, V', role: 'crank', unit: 'V' },
    { column: 'Clamp', role: 'injector-current', unit: 'A', perVolt: 10, cylinder: 3 },
  ],
  ask: ['timing'],
};
const draft = (column: string): ColumnDraft => ({
  column,
  isTaken: true,
  name: column,
  unit: 'V',
  role: 'other',
  factor: '1',
  of: '',
  lead: '',
  limits: '',
  cylinder: '',
});

test('samples inside a document become the table that a logger would have written', async () => {
  const table = tableOf(question, 'good.json');
  expect(table?.name).toBe('good.csv');
  expect(await table?.text()).toBe('"t","Crank, V","Clamp"\n0,0,1\n0.001,5,2\n0.002,,3\n');
  expect(tableOf({ ...question, data: 'good.csv' }, 'good.json')).toBeNull();
});

test('columns are filled in as the document says; what it does not name is not taken, what is lacking is told', () => {
  const { drafts, missing } = draftsFrom(question, [draft('Clamp'), draft('More')]);
  expect(drafts[0]).toMatchObject({ isTaken: true, role: 'injector-current', unit: 'A', factor: '10', cylinder: '3' });
  expect(drafts[1]?.isTaken).toBe(false);
  expect(missing).toEqual(['Crank, V']);
});

test('a file that is no such document is refused with its place', async () => {
  expect((await readQuestion(new Blob([JSON.stringify(question)]))).ok).toBe(true);
  expect(await readQuestion(new Blob(['{']))).toMatchObject({ ok: false });
  const wrong = await readQuestion(new Blob([JSON.stringify({ ...question, ask: ['tea'] })]));
  expect(wrong).toMatchObject({ ok: false, error: [{ path: '/ask/0' }] });
});
