import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { Measurement, Session } from '@dial-gauge/core';
import { nothingLogged, progressView, SOME_ID } from '../testing/records';
import { shownDialog, until } from '../testing/until';
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
const day = (assessedOn: string, ...measurements: Measurement[]): Session => ({ assessedOn, measurements });

describe('ProgressPage', () => {
  let fixture: ComponentFixture<ProgressPage>;
  let http: HttpTestingController;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = (selector: string) => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  const rows = () =>
    [...page().querySelectorAll('dg-change-table tbody tr')].map((row) =>
      [...row.children].map((cell) => cell.textContent!.replace(/\s+/g, ' ').trim()).join(' '),
    );
  const choose = async (selector: string, value: string) => {
    const select = page().querySelector<HTMLSelectElement>(selector)!;
    select.value = value;
    select.dispatchEvent(new Event('change'));
    await fixture.whenStable();
  };

  const open = async (sessions: readonly Session[], over: Parameters<typeof progressView>[1] = {}) => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(ProgressPage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    http.expectOne(`/api/visits/${SOME_ID}/progress`).flush(progressView(sessions, over));
    fixture.detectChanges();
    await nothingLogged(http);
    await fixture.whenStable();
  };

  it('says of every motion whether its change is real, and prints no bare sign of a position', async () => {
    await open([day('2026-10-01', hip({}, -12), hip({ side: 'right' }, 6)), day('2026-11-01', hip({}, -2), hip({ side: 'right' }, 8))]);
    expect(rows()).toEqual(['Extension, passive left lacks 12 lacks 2 +10 better', 'Extension, passive right 6 8 +2 within error']);
  });

  it('opens on what got worse since the visit before, and tells change since then', async () => {
    await open([
      day('2026-09-01', hip({}, -20), hip({ side: 'right' }, -15)),
      day('2026-10-01', hip({}, 14), hip({ side: 'right' }, 2)),
      day('2026-11-01', hip({}, -4), hip({ side: 'right' }, 15)),
    ]);
    expect(rows()[0]).toBe('Extension, passive left 14 lacks 4 −18 worse');
    expect(text('#chart-title')).toContain('Left hip extension, passive is 18° worse than on 1 Oct 2026; +16° since 1 Sep 2026, better');
    await choose('dg-change-table select', 'first');
    expect(rows()[0]).toBe('Extension, passive left lacks 20 lacks 4 +16 better');
  });

  it('tells change since the best visit where that alone shows what got worse', async () => {
    await open([
      day('2026-08-01', hip({}, -5)),
      day('2026-09-01', hip({}, 20)),
      day('2026-10-01', hip({}, 15)),
      day('2026-11-01', hip({}, 9)),
    ]);
    expect(rows()[0]).toBe('Extension, passive left 20 9 −11 worse');
  });

  it('compares with the first visit, the one before, or any between', async () => {
    const ends = [2, 14, 20, 19];
    await open(ends.map((end, month) => day(`2026-0${month + 5}-01`, hip({}, end))));
    const change = () => /(\S+) (better|worse|within error)$/.exec(rows()[0]!)?.slice(1).join(' ');
    expect(change()).toBe('+17 better');
    await choose('dg-change-table select', 'last');
    expect(change()).toBe('−1 within error');
    await choose('dg-change-table select', '2026-06-01');
    expect(change()).toBe('+5 within error');
    expect([...page().querySelectorAll('dg-change-table option')].map((o) => o.textContent!.trim()))
      .withContext('each visit once')
      .toEqual(['the first visit', 'the visit before', 'visit 2, 1 Jun']);
  });

  it('opens with the motion that changed most, and says it in a sentence', async () => {
    await open([day('2026-10-01', hip({}, 2), hip({ side: 'right' }, 14)), day('2026-11-01', hip({}, 3), hip({ side: 'right' }, 2))]);
    expect(text('h2')).toBe('Right hip extension, passive is 12° worse than on 1 Oct 2026.');
    expect(text('.facts')).toContain('2° now · a change counts from 9°');
    // What got worse is the first row.
    page().querySelectorAll<HTMLButtonElement>('tbody button')[1]!.click();
    await fixture.whenStable();
    expect(text('h2')).toBe('Left hip extension, passive has not really changed since 1 Oct 2026: +1°, within measuring error.');
    page().querySelectorAll<HTMLButtonElement>('dg-small-multiples button')[0]!.click();
    await fixture.whenStable();
    expect(text('h2')).toContain('Right hip extension');
  });

  it('says when another examiner made the error larger, and keeps that reading out of the trend', async () => {
    await open([day('2026-10-01', hip({ examiner: 'Ash' }, 2)), day('2026-11-01', hip({}, 13))]);
    expect(rows()[0]).toContain('within error another examiner: the larger error is used');
    expect(text('.notes')).toContain('another examiner (Ash). Its error is wider on the chart');
  });

  it('refuses to join another protocol, and says so beside the chart and on it', async () => {
    const other = hip({ motion: 'hip.internalRotation', position: 'sitting' }, 30);
    await open([
      day('2026-10-01', other),
      day('2026-11-01', hip({ motion: 'hip.internalRotation' }, 20), hip({ motion: 'hip.internalRotation', side: 'right' }, 22)),
    ]);
    page().querySelectorAll<HTMLButtonElement>('tbody button')[0]!.click();
    await fixture.whenStable();
    expect(text('.notes')).toMatch(/Not compared: 1 Oct 2026: by another protocol \(.*sitting.*\): a different thing, not joined/);
  });

  it('says what this visit left out, and compares nothing in its place', async () => {
    await open([day('2026-09-01', hip({}, 2)), day('2026-10-01', hip({}, 14)), day('2026-11-01', hip({ side: 'right' }, 6))]);
    expect(rows()[1]).toBe('Extension, passive left 14 ·· ·· not this time');
    page().querySelectorAll<HTMLButtonElement>('tbody button')[1]!.click();
    await fixture.whenStable();
    expect(text('.facts')).toContain('not measured at this visit');
  });

  it('speaks in weeks after an operation, with usual course and standing still', async () => {
    const course = [62, 74, 90, 104, 106, 106];
    const weeks = [1, 2, 4, 8, 10, 12];
    const sessions = weeks.map((week, at) =>
      day(
        new Date(Date.UTC(2026, 7, 1 + week * 7)).toISOString().slice(0, 10),
        hip({ motion: 'knee.flexion', position: 'supine' }, course[at]!),
      ),
    );
    await open(sessions, { episode: { procedureId: 'knee-replacement', procedureOn: '2026-08-01', involvedSide: 'left' } });
    expect(text('h2')).toBe('Left knee flexion, passive is 44° better than in week 1, with no real change since week 8.');
    expect(text('.notes')).toContain('On the usual course since week');
    expect(text('[status]') || text('dg-frame .status')).toContain('nee replacement, 1 Aug 2026');
  });

  it('sets a goal through the dialog and reads the record again', async () => {
    await open([day('2026-10-01', hip({}, 2)), day('2026-11-01', hip({}, 8))]);
    page().querySelector<HTMLButtonElement>('.facts button')!.click();
    // Drawn, not only there: what is pressed before is heard by nobody.
    await shownDialog();
    const dialog = () => document.querySelector('mat-dialog-container')!;
    const radio = [...dialog().querySelectorAll('mat-radio-button')].find((r) => r.textContent!.includes('set by hand'))!;
    radio.querySelector('input')!.click();
    await fixture.whenStable();
    const save = () => [...dialog().querySelectorAll('button')].find((b) => b.textContent!.includes('Set the goal'))!.click();
    save();
    await fixture.whenStable();
    expect(dialog().textContent).toContain('Goal: type a number in °');
    const input = dialog().querySelector('input[inputmode="decimal"]') as HTMLInputElement;
    input.value = '15';
    input.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    save();
    await until(() => !document.querySelector('mat-dialog-container'));
    const request = http.expectOne({ method: 'PUT', url: `/api/episodes/${SOME_ID}/goal` });
    expect(request.request.body).toEqual({
      protocol: 'hip.extension/prone',
      digit: undefined,
      side: 'left',
      mode: 'passive',
      goal: { source: 'hand', value: 15 },
    });
    request.flush({});
    // The page is not at rest while it reads the record again.
    const again = await until(() => http.match(`/api/visits/${SOME_ID}/progress`)[0]);
    expect(again.cancelled).toBeFalse();
  });

  it('teaches what a second visit is for, and what to do when nothing is measured', async () => {
    await open([day('2026-11-01', hip({}, 6))]);
    expect(text('h2')).toContain('has one reading so far: a second one');
    expect(rows()[0]).toContain('first reading');
    TestBed.resetTestingModule();
    await open([]);
    expect(page().textContent).toContain('Nothing is measured or screened yet');
  });
});
