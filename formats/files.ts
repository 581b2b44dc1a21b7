import { readBundledJob } from './bundle';
import { readCatalogue } from './catalogue';
import { readDepotsCsv } from './depots-csv';
import { readFittingValuesCsv } from './fitting-values-csv';
import { readInstrumentsCsv } from './instruments-csv';
import { readPeopleCsv } from './people-csv';
import { readSpecifications } from './specifications';
import { readSpecificationsCsv } from './specifications-csv';
import { readStarterKit } from './starter-kit';
import { readUnitsCsv } from './units-csv';
import { readSavedWaiting } from './waiting-file';

/** Files that a workshop hands in whole, or what is packed in them; each with what reads its text. */
export const FILES = {
  units: readUnitsCsv,
  people: readPeopleCsv,
  depots: readDepotsCsv,
  instruments: readInstrumentsCsv,
  fittingValues: readFittingValuesCsv,
  limitsTable: readSpecificationsCsv,
  limits: readSpecifications,
  catalogue: readCatalogue,
  starterKit: readStarterKit,
  savedWaiting: readSavedWaiting,
  bundledJob: readBundledJob,
} as const;

export type FileKind = keyof typeof FILES;
export type Given<K extends FileKind> = Parameters<(typeof FILES)[K]>;
export type WasRead<K extends FileKind> = ReturnType<(typeof FILES)[K]>;
