import type { Reader } from '../core/locale/locale';
import type { DeviceCopy } from '../formats/device-copy';
import type { JobView, RunView, YardView } from './views';

/** What a page of the application draws, by its path, as the server would say it. */
export type DeviceView =
  | { readonly page: 'yard'; readonly yard: YardView }
  | { readonly page: 'job' | 'circuits'; readonly view: JobView }
  | { readonly page: 'run'; readonly view: RunView };

export interface DeviceRequest {
  readonly method: 'GET' | 'POST';
  /** Path with its query. */
  readonly path: string;
  readonly type: string;
  readonly body: string | ArrayBuffer | null;
  /** Who asks: unlocked on this device. */
  readonly by: string;
  /** How long ago it was made; 0: now. */
  readonly ago_ms: number;
}
export interface DeviceAnswer {
  /** Of HTTP; 501: only the server can do it. */
  readonly status: number;
  readonly type: string;
  readonly body: ArrayBuffer;
}

/** The server's rooms on a device, as its worker offers them (`device/worker.ts`). */
export interface DeviceRooms {
  /** Lays a copy into a fresh database. */
  readonly open: (copy: DeviceCopy) => Promise<void>;
  /** In whose words the device answers. */
  readonly read: (reader: Reader) => Promise<void>;
  readonly request: (request: DeviceRequest) => Promise<DeviceAnswer>;
  /** `null`: this page is not on the device, or what it shows is not. */
  readonly view: (address: string) => Promise<DeviceView | null>;
}
