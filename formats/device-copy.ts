/** A part of the database as a device takes it along, and as it is laid into the device's own database. */
export interface DeviceCopy {
  readonly format: 'mudflat/device-copy';
  readonly version: 1;
  /** Version of the core that judged what is in it. */
  readonly core: string;
  /** ISO 8601: as of when. */
  readonly madeAt: string;
  readonly depotId: string | null;
  /** In an order in which each refers to those before it. */
  readonly tables: readonly TableCopy[];
}

/** Header of the packed copy with its `madeAt`: whoever keeps it need not unpack it. */
export const MADE_AT = 'mudflat-made-at';

export interface TableCopy {
  readonly name: string;
  readonly columns: readonly string[];
  /** The rows as one JSON text, as PostgreSQL writes and reads it. */
  readonly rows: string;
}
