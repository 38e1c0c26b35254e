import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import { assess, progressOf, standsSince, type Measurement, type Session } from '@dial-gauge/core';
import { SOME_ID, visitRecord } from '../testing/records';
import { Story } from './story';

const knee = (end: number): Measurement => ({
  motion: 'knee.flexion',
  side: 'right',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
});
const SESSIONS: readonly Session[] = [
  ['2026-10-01', 84],
  ['2026-11-20', 104],
].map(([on, end]) => ({ assessedOn: on as string, measurements: [knee(end as number)] }));

describe('the story of an episode', () => {
  let http: HttpTestingController;
  beforeEach(() => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    http = TestBed.inject(HttpTestingController);
  });
  const open = async (over: object = {}) => {
    const fixture = TestBed.createComponent(Story);
    fixture.componentRef.setInput('episodeId', SOME_ID);
    fixture.detectChanges();
    const { episode, visit } = visitRecord();
    const empty = {
      episode,
      visit: null,
      findings: [],
      findingsInAll: 0,
      notJudged: 0,
      series: [],
      seriesInAll: 0,
      program: null,
      loggedDays: null,
      standing: null,
    };
    http
      .expectOne(`/api/episodes/${SOME_ID}/story`)
      .flush({ ...empty, ...(over as { visit?: unknown }), visit: 'visit' in over ? visit : null });
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    return { fixture, page, text: page.textContent.replace(/\s+/g, ' ') };
  };

  it('says what is not there, and calls nothing fine', async () => {
    const { text } = await open();
    for (const said of ['nothing is measured yet', 'nothing is measured twice yet', 'none is given', 'nothing agreed'])
      expect(text).toContain(said);
    expect(text).not.toContain('nothing is short');
  });

  it('says of what was judged that nothing is short only together with what was not', async () => {
    const { text } = await open({ visit: true, notJudged: 3 });
    expect(text).toContain('Of what was judged on 20 Nov 2026 nothing is short. 3 could not be judged.');
  });

  it('tells what is short, since when, what changed, the programme and the next date', async () => {
    const person = { birthDate: '1984-05-02', sex: 'male' } as const;
    const findings = assess({ person, assessedOn: '2026-11-20', measurements: [knee(104)] } as never, {}).findings;
    const series = progressOf(SESSIONS, { person, involvedSide: 'right' });
    const told = findings.map((finding) => ({ finding, since: standsSince(finding, series) }));
    const program = { drills: ['Heel slide', 'Wall slide'], by: 'Wren', on: '2026-11-20', recheckOn: '2026-12-04' };
    const standing = {
      reasons: [{ kind: 'wrote', since: '2026-11-26', note: 'slept badly' }],
      urgency: 7,
      since: '2026-11-26',
      next: '2026-12-04',
      line: null,
    };
    const { text, page, fixture } = await open({
      visit: true,
      findings: told,
      findingsInAll: 9,
      series,
      seriesInAll: 6,
      program,
      loggedDays: 11,
      standing,
    });
    expect(findings.length).toBeGreaterThan(0);
    expect(text).toContain('Right knee flexion, passive 104°');
    expect(text).toContain('since 1 Oct 2026 or before');
    expect(text).toContain('9 findings on 20 Nov 2026');
    expect(text).toContain('is 20° better than on 1 Oct 2026');
    expect(text).toContain('all 6 motions measured again');
    expect(text).toContain('Heel slide, Wall slide');
    expect(text).toContain('11 of 14 days logged');
    expect(text).toContain('recheck 4 Dec 2026');
    expect(text).toContain('wrote: “slept badly”');
    page.querySelector<HTMLButtonElement>('.reasons button')!.click();
    http.expectOne(`/api/episodes/${SOME_ID}/messages-seen`).flush({});
    await fixture.whenStable();
  });
});
