import type pg from 'pg';

/** A statement that was asked so often is prepared: each connection parses and plans it once. */
const PREPARED_AFTER = 20;
/** Every connection keeps all that is prepared. */
const MOST_PREPARED = 100;
/** So many statements are counted; beyond that, the one that was asked longest ago is forgotten. */
const MOST_COUNTED = 300;

/** What begins a transaction or changes a table is never asked often enough to be worth a plan. */
const IS_PLANNED = /^(select|insert|update|delete|with)\s/i;

type Query = (...asked: unknown[]) => unknown;

/** The statements that one program asks often, by their text. What is asked once is not worth preparing. */
export class FrequentStatements {
  /** How often each was asked, the latest last. */
  private readonly asked = new Map<string, number>();
  private readonly names = new Map<string, string>();

  /** From now on `client` prepares what is frequent. Its answers are the same. */
  preparedBy(client: pg.ClientBase): void {
    const query = client.query.bind(client) as Query;
    const named: Query = (config, values, ...rest) => query(this.withName(config, values), values, ...rest);
    client.query = named as typeof client.query;
  }

  /** Statements without values are none of drizzle's questions; what has a name keeps it. */
  private withName(config: unknown, values: unknown): unknown {
    if (!isPlain(config) || !Array.isArray(values) || values.length === 0) return config;
    const name = this.nameOf(config.text);
    return name === null ? config : { ...config, name };
  }

  private nameOf(text: string): string | null {
    const known = this.names.get(text);
    if (known !== undefined) return known;
    if (this.names.size >= MOST_PREPARED || !IS_PLANNED.test(text)) return null;
    const times = (this.asked.get(text) ?? 0) + 1;
    this.asked.delete(text);
    if (times < PREPARED_AFTER) {
      this.remember(text, times);
      return null;
    }
    const name = `frequent_${this.names.size}`;
    this.names.set(text, name);
    return name;
  }

  private remember(text: string, times: number): void {
    const [longestAgo] = this.asked.keys();
    if (longestAgo !== undefined && this.asked.size >= MOST_COUNTED) this.asked.delete(longestAgo);
    this.asked.set(text, times);
  }
}

const isPlain = (config: unknown): config is { readonly text: string } =>
  typeof config === 'object' &&
  config !== null &&
  'text' in config &&
  typeof config.text === 'string' &&
  !('submit' in config) &&
  !('name' in config && config.name);
