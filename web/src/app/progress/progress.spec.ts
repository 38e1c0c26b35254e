import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { seriesOf, type Measurement, type Session } from '@dial-gauge/core';
import { SOME_ID, visitRecord } from '../testing/records';
import { ProgressPage } from './progress';

const hip = (over: Partial<Measurement>, end: number): Measurement => ({
  motion: 'hip.extension',
  side: 'left',
  mode: 'passive',
  position: 'prone',
  instrument: 'goniometer',
  trials: [{ end }],
  examiner: 'Wren',
  ...over,
});

describe('ProgressPage', () => {
  let fixture: ComponentFixture<ProgressPage>;
  const page = () => fixture.nativeElement as HTMLElement;
  const rows = () =>
    [...page().querySelectorAll('tbody tr')].map((row) => [...row.children].map((cell) => cell.textContent!.trim()).join(' '));

  const open = async (...sessions: Session[]) => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    const http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(ProgressPage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    const record = visitRecord();
    const visits = sessions.map((s, i) => ({ ...record.visit, assessedOn: s.assessedOn, number: i + 1, readings: s.measurements.length }));
    http.expectOne(`/api/visits/${SOME_ID}/progress`).flush({
      visit: record.visit,
      normSet: record.normSet,
      ownNormSet: record.ownNormSet,
      patient: record.patient,
      episode: record.episode,
      visits,
      series: seriesOf(sessions),
    });
    await fixture.whenStable();
  };
  const day = (assessedOn: string, ...measurements: Measurement[]): Session => ({ assessedOn, measurements });

  it('says of every motion whether its change is real, and prints no bare sign of a position', async () => {
    await open(day('2026-10-01', hip({}, -12), hip({ side: 'right' }, 6)), day('2026-11-01', hip({}, -2), hip({ side: 'right' }, 8)));
    expect(rows()).toEqual(['Extension, passive left lacks 12 lacks 2 +10 more, real', 'Extension, passive right 6 8 +2 within error']);
  });

  it('opens with the motion that changed most, and says it in a sentence', async () => {
    await open(day('2026-10-01', hip({}, 2), hip({ side: 'right' }, 14)), day('2026-11-01', hip({}, 3), hip({ side: 'right' }, 2)));
    expect(page().querySelector('h2')!.textContent).toBe('Right hip extension');
    expect(page().querySelector('.picture p')!.textContent).toContain(
      'passive 2°: 12° less than at the visit before, past measuring error; a change counts from 9°',
    );
    page().querySelector<HTMLButtonElement>('tbody button')!.click();
    await fixture.whenStable();
    expect(page().querySelector('h2')!.textContent).toBe('Left hip extension');
    expect(page().querySelector('.picture p')!.textContent).toContain('+1° since the visit before, within measuring error');
  });

  it('says when another examiner made the error larger', async () => {
    await open(day('2026-10-01', hip({ examiner: 'Ash' }, 2)), day('2026-11-01', hip({}, 13)));
    expect(page().querySelector('.picture p')!.textContent).toContain('another examiner: the larger error is used');
    expect(rows()[0]).toContain('within error');
  });

  it('says what this visit left out, and compares nothing in its place', async () => {
    await open(day('2026-09-01', hip({}, 2)), day('2026-10-01', hip({}, 14)), day('2026-11-01', hip({ side: 'right' }, 6)));
    expect(rows()[0]).toBe('Extension, passive left 14 ·· ·· not this time');
    page().querySelector<HTMLButtonElement>('tbody button')!.click();
    await fixture.whenStable();
    expect(page().querySelector('.picture p')!.textContent).toContain('Not measured at this visit');
  });

  it('tells the chart in words', async () => {
    await open(day('2026-10-01', hip({}, -4)), day('2026-11-01', hip({}, 6)));
    expect(page().querySelector('canvas')!.getAttribute('aria-label')).toBe(
      'passive readings, degrees: 1 Oct lacks 4, 1 Nov 6; error plus or minus 6; expected 2 to 23.',
    );
  });

  it('teaches what a second visit is for', async () => {
    await open(day('2026-11-01', hip({}, 6)));
    expect(page().querySelector('.picture p')!.textContent).toContain('One visit so far');
    expect(rows()[0]).toContain('first reading');
  });

  it('teaches what to do when nothing is measured', async () => {
    await open();
    expect(page().textContent).toContain('Nothing is measured yet');
  });
});
