import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { CohortView } from '@dial-gauge/contract';
import type { CohortWay } from '@dial-gauge/core';
import { CohortPage } from './cohort';

const KNEE: CohortWay = { motion: 'knee.flexion', mode: 'active', position: 'supine', protocol: 'knee.flexion/supine' };
const spread = (median: number, n = 24) => ({ n, p10: median - 12, q1: median - 5, median, q3: median + 6, p90: median + 11 });
const EMPTY: CohortView = { counted: null, counting: null, norms: [], outcomes: [], examiners: [] };
const TOLD: CohortView = {
  counted: { at: '2026-11-27T09:00:00Z', visits: 104, readings: 416 },
  counting: null,
  norms: [{ way: KNEE, groups: [{ sex: 'female', ages: { from: 60, to: 80, label: '60–79 years' }, spread: spread(129) }] }],
  outcomes: [
    {
      procedure: 'knee-replacement',
      way: KNEE,
      weeks: [
        { week: 2, spread: spread(86), usual: { low: 90, high: null } },
        { week: 9, spread: spread(110), usual: { low: 107, high: 115 } },
        { week: 40, spread: spread(118), usual: null },
      ],
    },
  ],
  examiners: [{ way: KNEE, name: 'Rook Ansty', n: 21, difference: -2 }],
};

describe('our own people', () => {
  let http: HttpTestingController;
  let fixture: ComponentFixture<CohortPage>;
  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])] });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(CohortPage);
    fixture.detectChanges();
  });

  const opened = async (view: CohortView) => {
    http.expectOne('/api/cohort').flush(view);
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const host = () => fixture.nativeElement as HTMLElement;
  const words = () => host().textContent.replace(/\s+/g, ' ');
  const press = async (name: string) => {
    [...host().querySelectorAll('button')].find((button) => button.textContent.includes(name))!.click();
    await fixture.whenStable();
    fixture.detectChanges();
  };

  it('are told with their number, their middle and what is usual, and never by name', async () => {
    await opened(TOLD);
    expect(words()).toContain('416 readings of 104 visits');
    expect(words()).toContain('women, 60–79 years 24 people');
    expect(words()).toContain('129° middle; half of them 124° to 135°, four of five 117° to 140°');
    expect(words()).toContain('usual 90° or more');
    expect(words()).toContain('usual 107° to 115°');
    expect(words()).toContain('no usual course known');
    expect(words()).toContain('reads 2° less than the middle 21 people');
  });

  it('lie on one rule where they are compared: what is larger lies farther right', async () => {
    await opened(TOLD);
    const middles = [...host().querySelectorAll('section[aria-labelledby=outcomes-heading] .middle')].map((line) =>
      Number(line.getAttribute('x1')),
    );
    expect(middles.length).toBe(3);
    expect([...middles].sort((a, b) => a - b)).toEqual(middles);
    expect(Math.min(...middles)).toBeGreaterThan(8);
    expect(Math.max(...middles)).toBeLessThan(232);
  });

  it('are nothing yet, and say how they grow', async () => {
    await opened(EMPTY);
    expect(words()).toContain('Not counted yet');
    expect(words()).toContain('which side is involved');
    expect(words()).not.toContain('Make it a norm set');
  });

  it('are counted anew when it is asked for, and made a norm set', async () => {
    await opened(TOLD);
    await press('Count anew');
    http
      .expectOne({ method: 'POST', url: '/api/cohort/counts' })
      .flush({ ...TOLD, counting: { askedAt: '2026-11-27T10:00:00Z', visits: 30 } });
    await fixture.whenStable();
    fixture.detectChanges();
    expect(words()).toContain('Counting now, 30 visits so far');
    await press('Make it a norm set');
    http
      .expectOne({ method: 'POST', url: '/api/cohort/norm-sets' })
      .flush(
        { title: 'Nothing to make it of', status: 409, detail: 'No group of twenty people or more was counted yet.' },
        { status: 409, statusText: 'Conflict' },
      );
    await fixture.whenStable();
    fixture.detectChanges();
    expect(host().querySelector('[role=alert]')?.textContent).toContain('No group of twenty');
  });
});
