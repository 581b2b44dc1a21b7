import { renderToStaticMarkup } from 'react-dom/server';
import { CIRCUITS } from '../../core/circuits/library';
import { schema } from '../../formats/schemas';
import { validate } from '../../formats/validate';
import { EVIDENCE_FORMS, evidenceOf, readPosition } from './evidence-fields';
import { readFreezeFrame } from './freeze-frame';
import { Schematic } from './schematic';
import { EVIDENCE_BODY } from '../../formats/requests/evidence';

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => undefined }) }));

describe('evidence as it is asked for', () => {
  const check = schema(EVIDENCE_BODY);
  const FULL: Record<string, string> = {
    part: 'injector',
    what: 'injector',
    signal: 'rail sensor',
    from: '3',
    to: '1',
    position: '3',
    where: 'the bracket',
    seen: 'rubbed through',
    changed: 'nothing',
    done: 'replaced',
    faultPresent: 'yes',
    change: 'none',
    damaged: 'yes',
    path: 'no',
  };
  test.each(EVIDENCE_FORMS.map((f) => [f.name, f] as const))(
    '%s: filled in, it is what the server takes; empty, every needed field says so',
    (_, form) => {
      const outcome = form.fields.find((f) => f.field === 'outcome')?.options?.[0]?.[0];
      const read = evidenceOf(form, { ...FULL, ...(outcome ? { outcome } : {}) }, ['hot'], []);
      expect('body' in read ? validate(check, read.body) : read).toMatchObject({ ok: true });
      const empty = evidenceOf(form, {}, [], []);
      const needed = form.fields
        .filter((f) => !f.optional && f.kind !== 'conditions')
        .map((f) => `/evidence/${f.field}`);
      expect('problems' in empty ? empty.problems.map((p) => p.path) : []).toEqual(needed);
    },
  );
  test('a position is a cylinder where it is a number, else a name', () =>
    expect([' 3 ', 'pin 26', '12'].map(readPosition)).toEqual([3, 'pin 26', 12]));
});

test.each<[string, object[]]>([
  [
    'engine speed: 812 rpm\ncoolant = 14 °C',
    [
      { name: 'engine speed', value: '812 rpm' },
      { name: 'coolant', value: '14 °C' },
    ],
  ],
  ['rail\t240 bar', [{ name: 'rail', value: '240 bar' }]],
  ['warm', [{ name: 'noted', value: 'warm' }]],
  ['\n \n', []],
  ['time: 12:30', [{ name: 'time', value: '12:30' }]],
])('freeze frame %j', (text, frame) => expect(readFreezeFrame(text)).toEqual(frame));

describe('the schematic', () => {
  test.each(CIRCUITS.map((c) => [c.id, c] as const))(
    '%s: every element is drawn inside the picture, the suspect in words',
    (_, circuit) => {
      const [suspect] = circuit.suspects;
      const element = suspect?.element.replace('{}', '2').replace(/\{(bank|pair)\}/, '1') ?? '';
      const svg = renderToStaticMarkup(
        <Schematic
          circuit={circuit}
          wiring={{ cylinders: 8, banks: [1, 1, 1, 1, 2, 2, 2, 2] }}
          shares={new Map([[element, 0.8]])}
          probe={null}
        />,
      );
      expect(svg).toContain(`Under suspicion: ${element} 80 %`);
      const [, , top = 0, width = 0, height = 0] = /viewBox="(\S+) (\S+) (\S+) (\S+)"/.exec(svg)?.map(Number) ?? [];
      for (const [, points = ''] of svg.matchAll(/points="([^"]+)"/g))
        for (const point of points.split(' ')) {
          const [x = NaN, y = NaN] = point.split(',').map(Number);
          expect([x >= 0 && x <= width, y >= top && y <= top + height]).toEqual([true, true]);
        }
    },
  );
  test('both probes stand where the test wants them; a clamp has its own sign', () => {
    const [glow] = CIRCUITS;
    if (!glow) throw new Error('no circuit');
    const draw = (test: string) =>
      renderToStaticMarkup(
        <Schematic circuit={glow} wiring={{ cylinders: 4 }} shares={new Map()} probe={{ test, position: 3 }} />,
      );
    expect(draw('glow-plug-resistance').match(/>(R|B)</g)).toEqual(['>R<', '>B<']);
    expect(draw('glow-plug-current')).toContain('clamp here');
  });
});
