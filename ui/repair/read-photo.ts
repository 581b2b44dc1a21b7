'use client';
import { prepareZXingModule, readBarcodes, type ReaderOptions } from 'zxing-wasm/reader';

/** Small codes on metal, at an angle, in poor light: try everything. */
export const CODE_OPTIONS: ReaderOptions = {
  formats: ['DataMatrix', 'QRCode'],
  tryHarder: true,
  tryRotate: true,
  tryInvert: true,
  tryDownscale: true,
  maxNumberOfSymbols: 4,
};

let isReady = false;

/** The texts of all codes on a photo; the decoder runs in this browser, the picture goes nowhere. */
export async function readPhoto(file: Blob): Promise<string[]> {
  if (!isReady)
    prepareZXingModule({
      overrides: { locateFile: (name: string) => (name.endsWith('.wasm') ? '/code-reader.wasm' : name) },
    });
  isReady = true;
  return (await readBarcodes(file, CODE_OPTIONS)).filter((r) => r.isValid).map((r) => r.text);
}
