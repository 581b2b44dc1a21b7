import type pg from 'pg';

/** What drizzle hands to a connection of node-postgres, and what it expects back. */
interface Config {
  readonly text: string;
  readonly rowMode?: string;
}
type Answer = pg.QueryArrayResult;
export type Ask = (config: Config, values: unknown[]) => Promise<Answer>;

interface Asked {
  readonly config: Config;
  readonly values: unknown[];
  readonly resolve: (answer: Answer) => void;
  readonly reject: (error: unknown) => void;
}

/** How a column travels in JSON without changing what the driver would have given. */
type Column = 'as it is' | 'as text';

/**
 * PostgreSQL's own numbers of types (`pg_type.oid`) that JSON carries as the driver gives them, or as their
 * text.
 */
const CARRIED: ReadonlyMap<number, Column> = new Map([
  ...[16, 21, 23, 25, 114, 701, 1009, 1043, 2950, 3802].map((oid) => [oid, 'as it is'] as const),
  // Whole numbers of 64 bits and times: the driver gives their text, to the last digit.
  ...[20, 1114, 1184].map((oid) => [oid, 'as text'] as const),
]);

/** The columns of a question, known since it was first answered; `null`: it cannot be folded. */
const columnsOf = new Map<string, readonly Column[] | null>();
/** More kinds of questions than a program has are made by somebody: they go on their own. */
const MOST_KINDS = 2_000;

/**
 * Several SELECTs that are asked at the same time, as one statement: one way to the database and back, one
 * snapshot. Each answers as it would have alone. The first time a question is asked it goes alone, which
 * tells its columns.
 */
export class Fold {
  private asked: Asked[] = [];

  constructor(private readonly ask: Ask) {}

  /** A question of drizzle. Whatever is asked until the event loop turns goes with it. */
  query(config: Config, values: unknown[] = []): Promise<Answer> {
    // Each question may go over another connection: a transaction would be none.
    if (/^begin\b/i.test(config.text)) throw new Error('no transaction among folded questions');
    if (config.rowMode !== 'array' || !isFoldable(config.text)) return this.ask(config, values);
    return new Promise((resolve, reject) => {
      this.asked.push({ config, values, resolve, reject });
      if (this.asked.length === 1) setImmediate(() => this.flush());
    });
  }

  private flush(): void {
    const asked = this.asked;
    this.asked = [];
    const folded = asked.filter((a) => columnsOf.get(a.config.text));
    const alone = folded.length > 1 ? asked.filter((a) => !columnsOf.get(a.config.text)) : asked;
    for (const a of alone) void this.askAlone(a);
    if (folded.length > 1) void this.askFolded(folded);
  }

  private async askAlone({ config, values, resolve, reject }: Asked): Promise<void> {
    try {
      const answer = await this.ask(config, values);
      if (columnsOf.size < MOST_KINDS) columnsOf.set(config.text, columnsIn(answer));
      resolve(answer);
    } catch (error) {
      reject(error);
    }
  }

  private async askFolded(all: readonly Asked[]): Promise<void> {
    const { text, values } = foldedStatement(all);
    try {
      const { rows } = await this.ask({ text, rowMode: 'array' }, values);
      const answers = rows[0] ?? [];
      for (const [i, a] of all.entries()) a.resolve(answerOf((answers[i] as unknown[][] | null) ?? []));
    } catch (error) {
      for (const a of all) a.reject(error);
    }
  }
}

const isFoldable = (text: string): boolean => /^select /.test(text) && !/ for (no key )?(update|share)\b/.test(text);

/** A function of PostgreSQL takes so many arguments (`FUNC_MAX_ARGS`). */
const MOST_COLUMNS = 100;

function columnsIn(answer: Answer): readonly Column[] | null {
  const columns = answer.fields.map((f) => CARRIED.get(f.dataTypeID));
  return columns.length <= MOST_COLUMNS && columns.every((c) => c !== undefined) ? columns : null;
}

const answerOf = (rows: unknown[][]): Answer => ({
  command: 'SELECT',
  rowCount: rows.length,
  oid: 0,
  fields: [],
  rows,
});

/** One row: of each question its rows as a JSON array of arrays, in the order of the question. */
function foldedStatement(all: readonly Asked[]): { readonly text: string; readonly values: unknown[] } {
  const values: unknown[] = [];
  const parts = all.map(({ config, values: own }) => {
    const before = values.length;
    values.push(...own);
    const question = config.text.replace(/\$(\d+)/g, (_, n: string) => `$${before + Number(n)}`);
    const columns = columnsOf.get(config.text) ?? [];
    const names = columns.map((_, i) => `c${i}`);
    const cells = columns.map((c, i) => (c === 'as text' ? `c${i}::text` : `c${i}`));
    return `(select json_agg(json_build_array(${cells.join(',')})) from (${question}) q(${names.join(',')}))`;
  });
  return { text: `select ${parts.join(',')}`, values };
}
