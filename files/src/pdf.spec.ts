import type { Report } from '@dial-gauge/core';
import { reportPages, reportPdf, type PdfOptions } from './pdf.js';
import { readPdf } from './testing/pdf-text.js';

const OPTIONS: PdfOptions = {
  paper: 'a4',
  language: 'en-GB',
  madeAt: new Date('2026-11-20T10:15:00Z'),
  words: { draft: 'DRAFT, not signed', page: (number, of) => `page ${number} of ${of}` },
};
const REPORT: Report = {
  kind: 'referrer',
  title: 'Ádám Őszi–Łoś: report',
  subtitle: 'Saltmarsh Lane',
  foot: 'Saltmarsh Lane · Γιώργος Ж',
  draft: true,
  large: false,
  blocks: [
    { kind: 'facts', rows: [['Person', 'Γιώργος Παπαδόπουλος, Жанна']] },
    { kind: 'heading', text: 'Findings' },
    { kind: 'paragraph', text: 'Left hip internal rotation, passive 19°: 25° short of 44°.' },
    { kind: 'list', items: ['one − two = −3', 'a long line '.repeat(30)] },
    {
      kind: 'table',
      caption: 'All of it',
      head: ['About', 'Value'],
      rows: Array.from({ length: 90 }, (_, at) => [`row ${at}`, `${at}°`]),
      figures: [1],
    },
    {
      kind: 'drill',
      title: 'Heel slide, left',
      dose: 'Do it 12 times.',
      cues: ['Slide up.', 'Slide back.'],
      stop: 'Stop if it hurts.',
      start: { protocol: 'knee.flexion/supine', value: 20 },
      end: { protocol: 'knee.flexion/supine', value: 100 },
    },
  ],
};

describe('a page as PDF', () => {
  const NAMES = ['王小明', '歐陽慧', '田中 さくら', '김민준', 'สมชาย ใจดี', 'Γιώργος', 'Жанна', 'Nguyễn Thị Hồng', 'שרה', 'فاطمة'];

  it('writes names of every script that it has a typeface for, also beside others and in tables, and no letter as a gap', async () => {
    const blocks: Report['blocks'] = [
      ...NAMES.map((name) => ({ kind: 'paragraph' as const, text: `${name}: left knee flexion 104°, then ${name} again` })),
      { kind: 'facts', rows: NAMES.map((name) => [name, `born 1970, ${name}`] as const) },
      { kind: 'list', items: NAMES },
      { kind: 'table', caption: 'All', head: ['Name', 'Value'], rows: NAMES.map((name) => [name, '12°']), figures: [1] },
    ];
    const bytes = await reportPdf({ ...REPORT, blocks, foot: NAMES.join(' · ') }, OPTIONS);
    const read = await readPdf(bytes);
    const text = read.pages.join(' ').replace(/\s+/g, ' ');
    for (const name of NAMES.slice(0, 8)) expect(text.split(name).length).withContext(name).toBeGreaterThanOrEqual(6);
    expect(bytes.length).withContext('the letters that are used alone').toBeLessThan(300_000);
  });

  it('sets letters that combine as their script does', async () => {
    // Devanagari: the short i is drawn before the letter it follows; each is one piece of the page.
    const bytes = await reportPdf({ ...REPORT, title: 'प्रिया शर्मा', blocks: [] }, OPTIONS);
    expect((await readPdf(bytes)).pages.join('')).toMatch(/[\u0900-\u097f]{4}/);
  });

  it('is refused where a letter has no typeface, by the letter, and makes room for a text of several typefaces', async () => {
    await expectAsync(reportPdf({ ...REPORT, subtitle: 'well 👍 done 𐎀' }, OPTIONS)).toBeRejectedWith(
      jasmine.objectContaining({ letters: ['👍', '𐎀'] }),
    );
    // What is invisible is left out, and no reason to refuse.
    await reportPdf({ ...REPORT, subtitle: 'a\u200db\ufe0f\u00ad' }, OPTIONS);
    const pagesFor = (text: string) =>
      reportPages({ ...REPORT, blocks: Array.from({ length: 6 }, () => ({ kind: 'list' as const, items: [text] })) }, OPTIONS).pages;
    expect(pagesFor('王小明 left knee '.repeat(80))).toBeGreaterThan(1);
  });

  it('is read back by a second reader: every word, in order, in a structure, with outline, language and page numbers', async () => {
    const read = await readPdf(await reportPdf(REPORT, OPTIONS));
    const text = read.pages.join('\n').replace(/\s+/g, ' ');
    for (const words of [
      'Ádám Őszi–Łoś: report',
      'Γιώργος Παπαδόπουλος, Жанна',
      '19°: 25° short of 44°.',
      'one − two = −3',
      'row 0',
      'row 89',
      'Heel slide, left',
    ])
      expect(text).toContain(words);
    expect(read.pages.length).toBeGreaterThan(1);
    read.pages.forEach((page, at) => {
      expect(page).toContain(`page ${at + 1} of ${read.pages.length}`);
      expect(page).toContain('DRAFT, not signed');
      // The head of the table is told again wherever it goes on.
      if (page.includes('row ')) expect(page).toContain('About');
    });
    for (const tag of ['Document', 'H1', 'H2', 'P', 'L', 'LI', 'LBody', 'Table', 'TR', 'TH', 'TD', 'Figure'])
      expect(read.tags.has(tag)).withContext(tag).toBeTrue();
    expect(read.info).toEqual(jasmine.objectContaining({ Title: REPORT.title, Language: 'en-GB' }));
    expect(read.outline).toEqual(['Findings']);
    expect(read.size.map(Math.round)).toEqual([595, 842]);
  });

  it('is no draft where it was signed, and as large as the paper', async () => {
    const read = await readPdf(await reportPdf({ ...REPORT, draft: false }, { ...OPTIONS, paper: 'letter' }));
    expect(read.pages.join()).not.toContain('DRAFT');
    expect(read.size).toEqual([612, 792]);
  });

  it('tells beforehand where its pages begin: with just the rows and lines that a second reader finds first there', async () => {
    const items = Array.from({ length: 120 }, (_, at) => `line ${at}`);
    const whole: Report = { ...REPORT, blocks: [...REPORT.blocks, { kind: 'list', items }, { kind: 'paragraph', text: 'The end.' }] };
    for (const paper of ['a4', 'letter'] as const) {
      const { pages, breaks } = reportPages(whole, { ...OPTIONS, paper });
      const read = await readPdf(await reportPdf(whole, { ...OPTIONS, paper }));
      expect(pages).toBe(read.pages.length);
      expect(breaks.map(({ page }) => page)).toEqual(Array.from({ length: pages - 1 }, (_, at) => at + 2));
      for (const { page, block, item } of breaks) {
        const begun = whole.blocks[block]!;
        const words =
          begun.kind === 'table'
            ? begun.rows[item]![0]!
            : begun.kind === 'list'
              ? begun.items[item]!
              : begun.kind === 'drill'
                ? begun.title
                : '';
        const found = /(row|line) \d+|Heel slide, left/.exec(read.pages[page - 1]!.replace(/\s+/g, ' '));
        expect(found?.[0]).withContext(`${paper}, page ${page}`).toBe(words);
      }
    }
    expect(reportPages({ ...REPORT, blocks: [] }, OPTIONS)).toEqual({ pages: 1, breaks: [] });
  });

  it('writes what is longer than a page without losing a word', async () => {
    const long = Array.from({ length: 1500 }, (_, at) => `word${at}`);
    const read = await readPdf(
      await reportPdf(
        {
          ...REPORT,
          blocks: [
            { kind: 'paragraph', text: long.join(' ') },
            { kind: 'table', caption: '', head: ['a', 'b'], rows: [[long.slice(0, 300).join(' '), 'x']], figures: [] },
          ],
        },
        OPTIONS,
      ),
    );
    const text = read.pages.join(' ');
    expect(long.filter((word) => !text.includes(word))).toEqual([]);
  });
});
