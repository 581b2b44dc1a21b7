import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { create, type Font } from 'fontkit';
import sharp from 'sharp';
import { piecesOf } from './fonts';
import { Paper } from './paper';
import { plainFont } from './woff';

// What stands on the paper is read back with another program than the one that wrote it: poppler's tools.
const dir = mkdtempSync(path.join(tmpdir(), 'paper-'));
async function written(fill: (paper: Paper) => void, title = 'Title'): Promise<string> {
  const paper = new Paper({ title, subject: 'subject' });
  fill(paper);
  const file = path.join(dir, 'paper.pdf');
  writeFileSync(file, await paper.end('foot'));
  return file;
}
const tool = (name: string, ...args: string[]): string => execFileSync(name, args, { encoding: 'utf8' });
const textOf = (file: string): string => tool('pdftotext', '-layout', file, '-').replace(/\s+/g, ' ');
const pagesOf = (file: string): number => Number(/Pages:\s+(\d+)/.exec(tool('pdfinfo', file))?.[1]);
const count = (text: string, of: RegExp): number => [...text.matchAll(of)].length;

test('says that it is tagged, its language and its title, as ISO 14289-1 asks', async () => {
  const file = await written((p) => {
    p.heading(1, 'One');
  }, 'Glow plugs, PL-07');
  const facts = tool('pdfinfo', file);
  expect(facts).toMatch(/Tagged:\s+yes/);
  expect(facts).toMatch(/Title:\s+Glow plugs, PL-07/);
  expect(tool('pdfinfo', '-meta', file)).toContain('<pdfuaid:part>1</pdfuaid:part>');
  expect(readFileSync(file, 'latin1')).toContain('/Lang (en-GB)');
  expect(readFileSync(file, 'latin1')).toContain('/DisplayDocTitle true');
});

test('tags headings, paragraphs, drawings with words, and tables by row and cell', async () => {
  const file = await written((p) => {
    p.heading(1, 'Job 7');
    p.heading(2, 'Codes');
    p.fact('Unit', 'PL-07');
    p.figure(50, 'Cylinder 1 0.6, within', (doc, top) => {
      doc.rect(p.left, top, 10, 10).fill('red');
    });
    p.table(
      [
        { head: 'Where', width: 60 },
        { head: 'Why', width: 0 },
      ],
      [
        [{ text: '1' }, { text: 'inside' }],
        [{ text: '2' }, { text: 'above' }],
      ],
    );
  });
  const tree = tool('pdfinfo', '-struct-text', file);
  expect(tree).toMatch(/H1 \(block\)\s+"Job 7"/);
  expect(tree).toMatch(/H2 \(block\)\s+"Codes"/);
  expect(tree).toMatch(/P \(block\)\s+"Unit"\s+"PL-07"/);
  expect(tree).toMatch(/Figure/);
  expect(count(tree, /\bTR\b/g)).toBe(3);
  expect(count(tree, /\bTH\b/g)).toBe(2);
  expect(count(tree, /\/Scope \/Column/g)).toBe(2);
  expect(tree).toMatch(/TD \(inline\)\s+"above"|TD.*\s+"above"/);
  expect(tool('pdfinfo', '-struct', file)).not.toMatch(/foot/);
});

test('breaks a long text over lines and pages without losing a word', async () => {
  const words = Array.from({ length: 3000 }, (_, i) => `word${i}`);
  const file = await written((p) => {
    p.paragraph(words.join(' '));
  });
  expect(pagesOf(file)).toBeGreaterThan(2);
  const text = textOf(file).replace(/foot \d+ \/ \d+ /g, '');
  expect(
    text
      .trim()
      .split(' ')
      .filter((w) => w.startsWith('word')),
  ).toEqual(words);
});

test('a word that is longer than a line is broken, not cut off', async () => {
  const hash = 'a1b2c3d4'.repeat(40);
  const file = await written((p) => {
    p.paragraph(hash);
  });
  expect(textOf(file).replace(/ /g, '')).toContain(hash);
});

test('repeats the head of a table on every page, and keeps a row whole', async () => {
  const file = await written((p) => {
    p.table(
      [
        { head: 'Where', width: 60 },
        { head: 'Why', width: 0 },
      ],
      Array.from({ length: 120 }, (_, i) => [{ text: `row ${i}` }, { text: `reason ${i}` }]),
    );
  });
  const pages = pagesOf(file);
  expect(pages).toBeGreaterThan(1);
  expect(count(textOf(file), /Where Why/g)).toBe(pages);
  expect(count(tool('pdfinfo', '-struct', file), /\bTH\b/g)).toBe(2);
  expect(count(textOf(file), /row \d+ reason \d+/g)).toBe(120);
});

test('embeds every font that it uses, and draws names of other alphabets', async () => {
  const file = await written((p) => {
    p.paragraph('Łukasz Kovačević, Ωμέγα, Борис: 0.6 Ω ± 2 %');
    p.paragraph('mono', { face: 'mono' });
    p.paragraph('bold Ω', { face: 'bold' });
  });
  const fonts = tool('pdffonts', file).trim().split('\n').slice(2);
  expect(fonts.length).toBeGreaterThan(3);
  for (const font of fonts) expect(font).toMatch(/ yes +(yes|no) +yes +\d+/);
  expect(textOf(file)).toContain('Łukasz Kovačević, Ωμέγα, Борис: 0.6 Ω ± 2 %');
});

test('a picture keeps its shape and stands with its words', async () => {
  const jpeg = await sharp({ create: { width: 400, height: 200, channels: 3, background: '#246' } })
    .jpeg()
    .toBuffer();
  const file = await written((p) => {
    p.pictures(
      [
        { jpeg, width: 400, height: 200, caption: 'chafed at the clip' },
        { jpeg, width: 400, height: 200, caption: 'the other side' },
        { jpeg, width: 400, height: 200, caption: 'third' },
      ],
      2,
      190,
    );
  });
  const images = tool('pdfimages', '-list', file).trim().split('\n').slice(2);
  expect(images).toHaveLength(3);
  for (const i of images) expect(i).toMatch(/ 400 +200 /);
  expect(tool('pdfinfo', '-struct-text', file)).toMatch(/Caption[\s\S]*"chafed at the clip"/);
});

test('what no font has stands as a sign, and any text can be written', () => {
  expect(
    piecesOf('漢', 'plain')
      .map((p) => p.text)
      .join(''),
  ).toMatch(/^[?□]$/);
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (text) => {
      const shown = piecesOf(text, 'plain')
        .map((p) => p.text)
        .join('');
      expect([...shown].length).toBe([...text.replace(/[\p{Cc}\p{Cf}]/gu, '')].length);
    }),
  );
});

test('text is never torn: any words come back from the paper', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.stringMatching(/^[a-zA-Z0-9.,±Ω-]{1,30}$/), { minLength: 1, maxLength: 60 }),
      async (words) => {
        const file = await written((p) => {
          p.paragraph(words.join(' '));
        });
        expect(textOf(file).replace(/ /g, '')).toContain(words.join(''));
      },
    ),
    { numRuns: 12 },
  );
});

test('a font of the web holds the same tables and glyphs as a plain one', () => {
  const woff = readFileSync(
    path.join(process.cwd(), 'node_modules/@fontsource/noto-sans/files/noto-sans-greek-400-normal.woff'),
  );
  const [packed, plain] = [create(woff) as Font, create(plainFont(woff)) as Font];
  expect(plain.numGlyphs).toBe(packed.numGlyphs);
  expect(plain.postscriptName).toBe(packed.postscriptName);
  for (const letter of 'ΑΩαωπ')
    expect(plain.glyphForCodePoint(letter.codePointAt(0)!).path.toSVG()).toBe(
      packed.glyphForCodePoint(letter.codePointAt(0)!).path.toSVG(),
    );
  expect(() => plainFont(Buffer.from('no font'))).toThrow('no WOFF');
});
