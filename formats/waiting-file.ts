import { type Result } from '../core/foundation/result';
import { OPEN_WAITING, type OpenWaiting } from './requests/waiting';
import { schema } from './schemas';
import { readJsonFile, validate } from './validate';

const check = schema<OpenWaiting>(OPEN_WAITING);

/** What a device has saved of what waited on it. Fails with every problem and its path. */
export function readSavedWaiting(text: string): Result<OpenWaiting> {
  const json = readJsonFile(text);
  return json.ok ? validate(check, json.value) : json;
}
