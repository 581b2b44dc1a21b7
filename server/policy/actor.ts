import type { Role } from '../../core/foundation/vocabulary';

/** Who asks. */
export interface Actor {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  /** `null`: works for every depot. */
  readonly depotId: string | null;
}
