import type { Engine } from '../core/engine/layout';
import type { Result } from '../core/foundation/result';
import { schema } from './schemas';
import { readJson, readJsonFile, validate } from './validate';

/** Rows as the database holds them, so that nothing is lost on the way; sequence and moments too. */
export type Row = Readonly<Record<string, unknown>>;

/**
 * A job that travels: `job.json` of a bundle. `Table`: the tables that hold a job, which are the server's to
 * name.
 */
export interface BundledJob<Table extends string = string> {
  readonly format: 'mudflat/bundle';
  /** 1 has fewer tables. */
  readonly version: 1 | 2;
  readonly core: string;
  readonly unit: {
    readonly id: string;
    readonly fleet_number: string;
    readonly kind: string;
    readonly parts: Readonly<Record<string, string>>;
  };
  readonly family: { readonly code: string; readonly engine: Engine };
  readonly depot: { readonly name: string };
  readonly specifications: readonly Row[];
  readonly instruments: readonly Row[];
  readonly tables: Readonly<Record<Table, readonly Row[]>>;
  readonly events: readonly {
    readonly number: number;
    readonly kind: string;
    readonly row_id: string;
    readonly recorded_by: string;
    readonly at: string;
    readonly content: string;
    readonly previous: string;
    readonly hash: string;
  }[];
}

/** Which files a bundle holds: its `manifest.json`. */
export interface BundleManifest {
  readonly format: 'mudflat/bundle-manifest';
  readonly version: 1;
  readonly job: number;
  readonly unit: string;
  readonly files: readonly { readonly path: string; readonly size: number; readonly sha256: string }[];
}

const checkJob = schema<BundledJob>('urn:mudflat:bundle:2');
const checkManifest = schema<BundleManifest>({
  type: 'object',
  additionalProperties: false,
  required: ['format', 'version', 'job', 'unit', 'files'],
  properties: {
    format: { const: 'mudflat/bundle-manifest' },
    version: { const: 1 },
    job: { type: 'integer' },
    unit: { type: 'string', maxLength: 80 },
    files: {
      type: 'array',
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['path', 'size', 'sha256'],
        properties: {
          path: { type: 'string', maxLength: 120 },
          size: { type: 'integer', minimum: 0 },
          sha256: { type: 'string', pattern: '^[0-9a-f]{64}$' },
        },
      },
    },
  },
});

/** `job.json` of a bundle. Fails with every problem and its path. */
export function readBundledJob(text: string): Result<BundledJob> {
  const json = readJsonFile(text);
  return json.ok ? validate(checkJob, json.value) : json;
}

/** `manifest.json` of a bundle. Fails with every problem and its path. */
export function readBundleManifest(text: string): Result<BundleManifest> {
  const json = readJson(text);
  return json.ok ? validate(checkManifest, json.value) : json;
}
