import fc from 'fast-check';
import { problemDetails } from './problem';
import { schema } from './schemas';
import { readTable } from './table';
import { readJsonFile, readJson, validate } from './validate';

interface Numbers {
  readonly numbers: readonly number[];
  readonly name?: string;
}
const check = schema<Numbers>({
  type: 'object',
  additionalProperties: false,
  required: ['numbers'],
  properties: { numbers: { type: 'array', items: { type: 'integer' } }, name: { type: 'string', maxLength: 3 } },
});
const pathsOf = (document: unknown): readonly string[] => {
  const read = validate(check, document);
  return read.ok ? [] : read.error.map((p) => p.path);
};

describe('a document held against its schema', () => {
  it('has every error told with its path', () => {
    expect(pathsOf({ numbers: [1, 'two', 3, 'four'], name: 'long' })).toEqual(['/numbers/1', '/numbers/3', '/name']);
    expect(pathsOf({ numbers: [1, 2] })).toEqual([]);
  });

  it('has the first error told where it is large, and is taken all the same where it is right', () => {
    const numbers: unknown[] = Array.from({ length: 100_000 }, (_, i) => i);
    expect(pathsOf({ numbers })).toEqual([]);
    expect(pathsOf({ numbers: numbers.map(() => 'x') })).toEqual(['/numbers/0']);
    numbers[99_998] = 'x';
    expect(pathsOf({ numbers })).toEqual(['/numbers/99998']);
  });

  it.each<[string, unknown, readonly string[]]>([
    ['not a number', { numbers: [1, NaN] }, ['/numbers/1']],
    ['without end', { numbers: [Infinity, 2, -Infinity] }, ['/numbers/0', '/numbers/2']],
    ['half of a pair', { numbers: [], name: 'a\ud800' }, ['/name']],
    ['with a null character', { 'a/b': { '~': 'x\0' } }, ['/a~1b/~0']],
  ])('what is %s is told before the schema is asked', (_, document, paths) => expect(pathsOf(document)).toEqual(paths));

  it('is surveyed at any depth', () => {
    let deep: unknown = NaN;
    for (let i = 0; i < 200_000; i++) deep = [deep];
    const read = validate(check, { numbers: deep });
    expect(read).toMatchObject({ ok: false, error: [{ message: 'Must be a finite number.' }] });
    expect(read.ok ? '' : read.error[0]?.path).toHaveLength('/numbers'.length + 49 * '/0'.length);
  });
});

describe('JSON text', () => {
  it('is read as it was written, unless it holds what cannot be stored', () => {
    const unstorable = (text: string): boolean => /\0|\p{Surrogate}/u.test(text);
    const texts = (v: unknown): readonly string[] =>
      typeof v === 'string'
        ? [v]
        : v !== null && typeof v === 'object'
          ? Object.entries(v).flatMap(([k, x]) => [k, ...texts(x)])
          : [];
    fc.assert(
      fc.property(fc.jsonValue({ stringUnit: 'binary' }), fc.boolean(), (value, hasMark) => {
        const text = JSON.stringify(value);
        const read = readJson(hasMark ? `\ufeff${text}` : text);
        expect(read.ok).toBe(!texts(value).some(unstorable));
        if (read.ok) expect(JSON.stringify(read.value)).toBe(text);
      }),
    );
  });

  it.each(['{"a":"\\u0000"}', '{"\\uD800":1}', '["x\\\\\\u0000"]', '["\ud83d"]'])('%j is refused', (text) => {
    expect(readJson(text)).toMatchObject({
      ok: false,
      error: [{ message: expect.stringContaining('cannot be stored') as string }],
    });
  });
  it.each(['["\\\\u0000"]', '["\\ud83d\\ude00"]', '["👩‍🔧"]'])('%j is read', (text) =>
    expect(readJson(text).ok).toBe(true),
  );

  it('of more values than anybody makes is refused before it is read; a file may hold more', () => {
    const refused = (most: string) => ({
      ok: false,
      error: [{ path: '', message: `It holds more than ${most} values.` }],
    });
    const zeros = (n: number) => `[${'0,'.repeat(n - 1)}0]`;
    expect(readJson(zeros(60_001))).toEqual(refused('60000'));
    expect(readJson(zeros(59_999)).ok).toBe(true);
    expect(readJson('['.repeat(60_001))).toEqual(refused('60000'));
    expect(readJsonFile(zeros(1_000_001))).toEqual(refused('1000000'));
    expect(readJsonFile(zeros(999_999)).ok).toBe(true);
  });

  it('of any depth is read or refused, and breaks nothing', () => {
    for (const depth of [100, 5_000, 10_000, 400_000]) {
      const read = readJsonFile(`${'['.repeat(depth)}"\\u0041"${']'.repeat(depth)}`);
      if (read.ok) expect(pathsOf(read.value)).toEqual(['']);
      else expect(read.error[0]?.message).toContain('This is not JSON');
    }
  });
});

test('of very many problems the first are told, and how many more there are', () => {
  const problems = Array.from({ length: 1_000 }, (_, i) => ({ path: `/line ${i}`, message: 'x' }));
  const { errors, detail } = problemDetails('Wrong.', problems);
  expect(errors).toHaveLength(201);
  expect(errors.at(-1)).toEqual({ path: '', message: 'And 800 more.' });
  expect(detail.length).toBeLessThan(5_000);
  expect(problemDetails('Wrong.', problems.slice(0, 200)).errors).toEqual(problems.slice(0, 200));
});

test('a table of more columns than anybody makes is refused at once, with and without names; so is a row without end', () => {
  const refused = (message: string) => ({
    ok: false,
    error: [{ message: expect.stringContaining(message) as string }],
  });
  const named = (n: number) => Array.from({ length: n }, (_, i) => `c${i}`).join(',');
  expect(readTable(`a${','.repeat(90_000)}\n${'1,2\n'.repeat(10_000)}`, ['a'], 50_000, ['a'])).toMatchObject(
    refused('more than 200 columns'),
  );
  expect(readTable(`${named(201)}\n1\n`, ['c1'], 50)).toMatchObject(refused('more than 200 columns'));
  expect(readTable(`${named(200)}\n1\n`, ['c1'], 50)).toMatchObject({ ok: true });
  for (const row of ['x'.repeat(200_000), `"${'a\n'.repeat(100_000)}`])
    expect(readTable(`a,b\n${row}`, ['a'], 50)).toMatchObject(refused('A row has more than 100000 characters'));
});
