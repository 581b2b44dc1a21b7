import { evidenceRules } from '../core/evidence/kinds/kinds';
import { readScan } from '../formats/scan';
import { importScan } from './scan-tool';

const TABLE = `kind;name;value;more
code;P0203;active;3
code;SPN 653 FMI 5;;
freeze;engine speed;812 rpm;
live;battery;12.4 V;
live;coolant;31 °C;
command;glow relay;on;
cut-out;3;none;
self-test;3;failed;circuit open
self-test;4;passed;`;
const problemsOf = (text: string) => {
  const read = readScan(text);
  return read.ok ? [] : read.error.map((p) => `${p.path}: ${p.message}`);
};

it('says the same as a table and as JSON', () => {
  const table = readScan(TABLE);
  if (!table.ok) throw new Error(JSON.stringify(table.error));
  expect(readScan(JSON.stringify(table.value))).toEqual(table);
  expect(table.value.codes).toEqual([{ code: 'P0203', status: 'active', count: 3 }, { code: 'SPN 653 FMI 5' }]);
});

it('makes codes of one look, and evidence of each cylinder', () => {
  const table = readScan(TABLE);
  if (!table.ok) throw new Error('not read');
  const { codes, freezeFrame, evidence } = importScan(table.value);
  expect(codes).toHaveLength(2);
  expect(freezeFrame).toEqual([{ name: 'engine speed', value: '812 rpm' }]);
  expect(evidence.map((e) => e.kind)).toEqual(['cut-out', 'scan-tool', 'scan-tool', 'scan-tool', 'scan-tool']);
  const said = evidenceRules(evidence.map((body, i) => ({ id: String(i), body, at: '', by: '' }) as never));
  expect(said.find((s) => s.rule === 'scan-tool' && s.stand === 'suspect')).toMatchObject({
    target: { kind: 'path', name: 'injector', position: 3 },
  });
});

it('says what is wrong by its line', () => {
  expect(problemsOf('kind,name,value\nself-test,3,broken')[0]).toMatch(/^\/line 2\/value: .*passed or failed/);
  expect(problemsOf('kind,name,value\nflorp,3,x')[0]).toMatch(/^\/line 2\/kind/);
  // 12,5 V without quotes: 12 would be shown, and the 5 V left out.
  expect(problemsOf('kind,name,value,more\nlive,battery,12,5 V')[0]).toMatch(/^\/line 2\/more: .*quotes/);
  expect(problemsOf('kind,name,value\nlive,battery,12,5 V')[0]).toMatch(/^\/line 2: "5 V" stands under no column/);
  expect(problemsOf('kind,name,value,more\nlive,battery,"12,5 V",\ncode,P0671,active,3')).toEqual([]);
  expect(problemsOf('kind,nme,value\nlive,a,1')[0]).toContain('name');
  expect(problemsOf('{"format":"mudflat/scan"')[0]).toContain('no JSON');
  expect(problemsOf('{"format":"mudflat/scan","version":1,"codes":[{"status":"active"}]}')[0]).toContain('/codes/0');
});
