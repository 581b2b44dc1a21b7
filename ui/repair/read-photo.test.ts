/** @jest-environment node */
import { readFileSync } from 'node:fs';
import bwip from 'bwip-js/node';
import sharp from 'sharp';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import { CODE_OPTIONS } from './read-photo';

const CODE = '7AF209KD11X8QZ40MV3C5T6R2H1B9K';

beforeAll(() => {
  prepareZXingModule({
    overrides: {
      wasmBinary: readFileSync('node_modules/zxing-wasm/dist/reader/zxing_reader.wasm') as unknown as ArrayBuffer,
    },
  });
});

interface Look {
  readonly turn: number;
  readonly shear?: number;
  readonly ink: string;
  readonly metal: string;
  readonly blur?: number;
  readonly noise?: number;
  readonly kind?: 'datamatrix' | 'qrcode';
}

/** A code as a phone sees it on a part: turned, seen from aside, dark ink on dull metal, blurred, noisy. */
async function photograph({
  turn,
  shear = 0,
  ink,
  metal,
  blur = 0,
  noise = 0,
  kind = 'datamatrix',
}: Look): Promise<Buffer> {
  const drawn = await bwip.toBuffer({
    bcid: kind,
    text: CODE,
    scale: 6,
    paddingwidth: 12,
    paddingheight: 12,
    barcolor: ink,
    backgroundcolor: metal,
  });
  const tilted = await sharp(drawn)
    .flatten({ background: `#${metal}` })
    .affine([1, shear, 0.4 * shear, 1 - 0.5 * Math.abs(shear)], { background: `#${metal}` })
    .rotate(turn, { background: `#${metal}` })
    .toBuffer();
  const scene = sharp({ create: { width: 1200, height: 900, channels: 3, background: `#${metal}` } }).composite([
    { input: tilted, left: 310, top: 190 },
  ]);
  const grains = noise
    ? await sharp({
        create: {
          width: 1200,
          height: 900,
          channels: 3,
          background: '#808080',
          noise: { type: 'gaussian', mean: 128, sigma: noise },
        },
      })
        .png()
        .toBuffer()
    : null;
  const lit = await scene.png().toBuffer();
  const noisy = grains
    ? await sharp(lit)
        .composite([{ input: grains, blend: 'soft-light' }])
        .png()
        .toBuffer()
    : lit;
  return sharp(noisy)
    .blur(blur || undefined)
    .jpeg({ quality: 60 })
    .toBuffer();
}

test.each<[string, Look]>([
  ['straight', { turn: 0, ink: '222222', metal: 'cccccc' }],
  ['turned by 33 degrees', { turn: 33, ink: '222222', metal: 'bbbbbb' }],
  ['at an angle, seen from aside', { turn: -17, shear: 0.22, ink: '303030', metal: 'a8a8a0' }],
  ['in poor light', { turn: 8, ink: '262626', metal: '4c4c48' }],
  [
    'in poor light, at an angle, blurred and noisy',
    { turn: 24, shear: 0.15, ink: '2a2a2a', metal: '5a5a54', blur: 1.2, noise: 12 },
  ],
  ['light on dark, as it is etched', { turn: 61, ink: 'd0d0c8', metal: '505050' }],
  ['a QR code', { turn: 12, ink: '222222', metal: '999999', kind: 'qrcode' }],
])('a photo of a code is read: %s', async (_, look) => {
  const found = await readBarcodes(new Uint8Array(await photograph(look)), CODE_OPTIONS);
  expect(found.filter((f) => f.isValid).map((f) => f.text)).toEqual([CODE]);
});
test('a photo without a code has none', async () => {
  const empty = await sharp({
    create: {
      width: 800,
      height: 600,
      channels: 3,
      background: '#777',
      noise: { type: 'gaussian', mean: 120, sigma: 30 },
    },
  })
    .jpeg()
    .toBuffer();
  expect(await readBarcodes(new Uint8Array(empty), CODE_OPTIONS)).toEqual([]);
});
