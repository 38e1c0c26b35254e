import { motion, protocolOfId, PROTOCOLS } from '@dial-gauge/core';
import { checkTyped, instrumentOf, readTyped, valueOf } from './typed';

describe('typed readings', () => {
  const of = (id: string) => protocolOfId(id)!;
  const message = (id: string, text: string) => {
    const typed = readTyped(of(id), text);
    return typed.ok ? (checkTyped(of(id), typed.reading) ?? '') : typed.message;
  };

  it('are start and end of an angle, one figure of a length, or two sites', () => {
    expect(readTyped(of('hip.flexion/supine'), '10/95')).toEqual({ ok: true, reading: { start: 10, end: 95 } });
    expect(readTyped(of('distance.kneeToWall/standing'), '7,5')).toEqual({ ok: true, reading: { start: 0, end: 7.5 } });
    expect(readTyped(of('lumbar.flexion/standing'), '5/104 3/49')).toEqual({
      ok: true,
      reading: { start: 5, end: 104, lower: { zero: 3, end: 49 } },
    });
  });

  it('are held to what the body can hold and the instrument can read, start and end alike', () => {
    expect(message('hip.flexion/supine', '95')).toBe('');
    expect(message('hip.flexion/supine', '200/95')).toContain('200° is more than hip flexion can hold');
    expect(message('hip.flexion/supine', '95.5')).toContain('steps of 1°');
    expect(message('strength.kneeExtension/sitting', '1600')).toContain('allowed: 0 to 1500 N');
    expect(message('strength.kneeExtension/sitting', '5/210')).toContain('one figure in N');
    expect(message('balance.singleLegStanceEyesOpen/standing', '181')).toContain('allowed: 0 to 180 s');
  });

  it('hold two sites to what is left when they are subtracted, and do not cut a negative rest', () => {
    expect(message('lumbar.flexion/standing', '190/20')).toContain('170° is more than lumbar flexion can hold; allowed: −20 to 110°');
    // Over the top of the scale: 350 → 94 is 104 along the way moved (arithmetic)
    const typed = readTyped(of('lumbar.flexion/standing'), '350/94 0/49');
    expect(typed.ok && valueOf(of('lumbar.flexion/standing'), typed.reading)).toBe(55);
    const less = readTyped(of('lumbar.extension/standing'), '18/25');
    expect(less.ok && valueOf(of('lumbar.extension/standing'), less.reading)).toBe(-7);
  });

  it('fit the usual instrument of every protocol of the library', () => {
    for (const protocol of PROTOCOLS) {
      const { limits, unit } = motion(protocol.motion);
      const figure = Math.min(12, limits.max - 1);
      const text = instrumentOf(protocol) === 'dualInclinometer' ? `${figure + 10}/10` : String(Math.max(figure, limits.min + 1));
      const typed = readTyped(protocol, text);
      expect(typed.ok).withContext(protocol.id).toBeTrue();
      if (typed.ok) expect(checkTyped(protocol, typed.reading)).withContext(`${protocol.id} ${unit}`).toBeUndefined();
    }
  });
});
