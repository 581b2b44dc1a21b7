import type { Evidence } from '../core/evidence/types';
import type { FreezeFrame } from '../formats/requests/codes';
import type { ScanDocument } from '../formats/scan';

/** What of a scan tool's file goes into a job: codes of one look, and evidence. */
export interface ImportedScan {
  readonly codes: NonNullable<ScanDocument['codes']>;
  readonly freezeFrame: FreezeFrame;
  readonly evidence: readonly Evidence[];
}

const MOST_CHARACTERS = 1900;

/**
 * Codes keep their order. Each cylinder of a cut-out or self-test is evidence of its own; live values are one
 * piece together.
 */
export function importScan(scan: ScanDocument): ImportedScan {
  const tool = scan.tool ?? 'scan tool';
  const live = (scan.live ?? []).map(({ name, value }) => `${name}: ${value}`).join('; ');
  return {
    codes: scan.codes ?? [],
    freezeFrame: scan.freezeFrame ?? [],
    evidence: [
      ...(scan.cutOut ?? []).map(({ cylinder, change, faultPresent = true }): Evidence => ({
        kind: 'cut-out',
        position: cylinder,
        change,
        faultPresent,
      })),
      ...(scan.selfTest ?? []).map(({ cylinder, part = 'injector', result, said }): Evidence => ({
        kind: 'scan-tool',
        what: part,
        position: cylinder,
        outcome: result === 'failed' ? 'self-test failed' : 'self-test passed',
        seen: said?.trim() ? said : tool,
      })),
      ...(scan.commands ?? []).map(({ name, state }): Evidence => ({
        kind: 'scan-tool',
        what: name,
        outcome: state === 'on' ? 'command on' : 'command off',
        seen: tool,
      })),
      ...(live
        ? [
            {
              kind: 'scan-tool',
              what: 'engine',
              outcome: 'shown',
              seen: live.slice(0, MOST_CHARACTERS),
            } satisfies Evidence,
          ]
        : []),
    ],
  };
}
