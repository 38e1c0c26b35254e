import { LogOutput } from './log-output.js';

const failing = (code: string) => Object.assign(new Error(code), { code });

describe('the output of the log', () => {
  it('drops lines while nothing can be written, and says how many once something can', () => {
    let full = true;
    const written: string[] = [];
    const output = new LogOutput((text) => {
      if (full) throw failing('ENOSPC');
      written.push(text);
    });
    for (let n = 0; n < 5_000; n += 1) output.write(`line ${n}\n`);
    expect(written).toEqual([]);
    full = false;
    output.write('after\n');
    expect(JSON.parse(written[0]!).msg).toBe('5000 lines of the log were dropped');
    expect(written.slice(1)).toEqual(['after\n']);
  });

  it('keeps lines in their order while a reader is slow, up to a limit', () => {
    jasmine.clock().install();
    try {
      let slow = true;
      const written: string[] = [];
      const output = new LogOutput((text) => {
        if (slow) throw failing('EAGAIN');
        written.push(text);
      });
      const line = `${'x'.repeat(999)}\n`;
      for (let n = 0; n < 1_200; n += 1) output.write(line);
      slow = false;
      jasmine.clock().tick(50);
      expect(written.length).toBe(1_001);
      expect(written[0]).toContain('200 lines of the log were dropped');
    } finally {
      jasmine.clock().uninstall();
    }
  });
});
