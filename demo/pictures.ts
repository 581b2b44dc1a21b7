import sharp from 'sharp';

/** Drawn, not photographed: what the invented fleet's technicians held their cameras at. */
export const PICTURES = ['pinched', 'rubbed'] as const;
export type Picture = (typeof PICTURES)[number];

/** A loom on its way along the engine: a sleeve with the wires in it. */
const loom = (path: string): string => `
  <path d="${path}" fill="none" stroke="#1d1f20" stroke-width="86" stroke-linecap="round"/>
  <path d="${path}" fill="none" stroke="#33373a" stroke-width="70" stroke-linecap="round" stroke-dasharray="10 7"/>`;

const bolt = (x: number, y: number): string => `
  <circle cx="${x}" cy="${y}" r="34" fill="#8d8a83"/>
  <path d="M${x - 18} ${y - 10}L${x} ${y - 21}L${x + 18} ${y - 10}V${y + 10}L${x} ${y + 21}L${x - 18} ${y + 10}Z" fill="#5f5d58"/>`;

const strand = (path: string, colour: string, width = 9): string =>
  `<path d="${path}" fill="none" stroke="${colour}" stroke-width="${width}" stroke-linecap="round"/>`;

const SCENES: Readonly<Record<Picture, { said: string; drawn: string }>> = {
  pinched: {
    said: 'behind cylinder 4: pinched under the bracket',
    drawn: `
      ${loom('M-60 560C260 520 380 470 560 470S940 420 1360 300')}
      <path d="M500 250H800L840 560H460Z" fill="#a29c90"/>
      <path d="M500 250H800L806 300H494Z" fill="#bdb7aa"/>
      ${bolt(650, 340)}
      <path d="M470 500Q650 560 830 470L838 545Q650 610 462 560Z" fill="#6b2f1f"/>
      ${strand('M560 545C600 575 640 560 690 570', '#c9772f')}
      ${strand('M600 552C640 590 700 560 740 560', '#d8b13c')}`,
  },
  rubbed: {
    said: 'under the cover at cylinder 3: rubbed through',
    drawn: `
      ${loom('M-60 300C220 340 420 380 620 430S1000 560 1360 560')}
      <path d="M700 120H980V420L700 500Z" fill="#9b958a"/>
      <path d="M700 120H730V490L700 500Z" fill="#c0baad"/>
      ${bolt(850, 230)}
      <path d="M600 400Q690 390 760 460Q700 500 610 470Z" fill="#54201a"/>
      ${strand('M612 424C650 430 690 440 748 466', '#c9772f', 12)}
      ${strand('M606 448C650 452 690 468 720 486', '#b9b4a8', 10)}`,
  },
};

/** The picture as a camera would give it: a JPEG of 1280 by 800. */
export function drawPicture(picture: Picture): Promise<Buffer> {
  const { said, drawn } = SCENES[picture];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1280" height="800" viewBox="0 0 1280 800">
    <defs><linearGradient id="g" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#6f6a60"/><stop offset="1" stop-color="#3d3b37"/></linearGradient></defs>
    <rect width="1280" height="800" fill="url(#g)"/>
    <path d="M0 690Q320 640 640 690T1280 680V800H0Z" fill="#2c2a27"/>
    ${drawn}
    <ellipse cx="655" cy="500" rx="190" ry="120" fill="none" stroke="#f4f0e9" stroke-width="7" stroke-dasharray="26 16"/>
    <text x="40" y="760" font-family="sans-serif" font-size="34" fill="#f4f0e9">${said} (drawn for the demo)</text>
  </svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 82 }).toBuffer();
}
