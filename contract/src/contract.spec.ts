import { DEFAULT_THRESHOLDS, type Thresholds as CoreThresholds } from '@dial-gauge/core';
import { Day, explain, NewPatient, NewReading, Thresholds } from './index.js';

const reading = {
  id: '7d444840-9dc0-41d1-b245-5ffdce74fad2',
  motion: 'hip.flexion',
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  end: 107,
  heldAt: '2026-11-20T09:30:00Z',
};
const problems = (over: Record<string, unknown>) => {
  const parsed = NewReading.safeParse({ ...reading, ...over });
  return parsed.success ? [] : explain(parsed.error).map((p) => `${p.path}: ${p.message}`);
};

describe('a new reading', () => {
  it('starts from zero where it does not say', () => {
    expect(NewReading.parse(reading).start).toBe(0);
  });

  it('is refused with the field, what is wrong, and what is allowed', () => {
    expect(problems({ end: 400 })).toEqual(['end: 400° is more than hip flexion can hold; allowed: −60 to 170°']);
    expect(problems({ end: undefined })).toEqual(['end: is missing; allowed: number']);
    expect(problems({ position: 'prone' })).toEqual(['position: hip flexion is not measured in "prone"; allowed: supine, standing']);
    expect(problems({ side: 'midline' })[0]).toBe('side: "midline" does not fit hip.flexion; allowed: left, right');
    expect(problems({ id: '1' })[0]).toBe('id: is not an identifier; allowed: a UUID');
    expect(problems({ heldAt: 'noon' })[0]).toContain('heldAt: is not a moment');
    expect(problems({ clinicId: 'x' })[0]).toContain('clinicId: is not known here');
  });
});

describe('a new patient', () => {
  it('needs a name that is not only spaces', () => {
    const parsed = NewPatient.safeParse({
      id: reading.id,
      givenName: ' ',
      familyName: 'Brandt',
      birthDate: '1968-01-01',
      sex: 'female',
      episode: { id: reading.id, complaint: 'stiff hips' },
    });
    expect(parsed.success ? [] : explain(parsed.error)).toEqual([{ path: 'givenName', message: 'is too short; allowed: at least 1' }]);
  });
});

describe('thresholds', () => {
  const wrong = (over: Partial<CoreThresholds>) => {
    const parsed = Thresholds.safeParse({ ...DEFAULT_THRESHOLDS, ...over });
    return parsed.success ? [] : explain(parsed.error).map((p) => `${p.path}: ${p.message}`);
  };

  it('take the defaults, and refuse steps that do not rise', () => {
    expect(wrong({})).toEqual([]);
    expect(wrong({ severityPercent: [25, 10, 50] })).toEqual([
      'severityPercent: do not rise from step to step; allowed: three rising numbers from 1 to 99',
    ]);
    expect(wrong({ activeGap: 0 })).toEqual(['activeGap: is too small; allowed: 1 or more']);
    expect(wrong({ sideDifference: { deg: 10, cm: 99, N: 0.1, s: 5 } })).toEqual(['sideDifference.cm: is too large; allowed: 20 or less']);
  });
});

describe('a day', () => {
  it('is one that can be meant', () => {
    for (const day of ['1850-01-01', '2026-11-26', '2199-12-31']) expect(Day.safeParse(day).success).withContext(day).toBeTrue();
    for (const day of ['0001-01-01', '1066-10-14', '2999-01-01', '2026-02-30', '26.11.2026'])
      expect(Day.safeParse(day).success).withContext(day).toBeFalse();
  });
});
