import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter, Router } from '@angular/router';
import type { ClinicView, VisitRecord } from '@dial-gauge/contract';
import { cautionsFor, MODES, touchOf, type MotionId } from '@dial-gauge/core';
import { noScreens, SOME_ID, storedMeasurement, visitRecord, nothingLogged } from '../testing/records';
import { until } from '../testing/until';
import { PreparePage } from './prepare';

const PRACTICE: ClinicView = { examSets: [], times: { first: {}, repeat: {}, turn: {} }, hand: { fist: 8.5, finger: 1.9 } };
const NO_SCREENS = noScreens();
const LIMIT = { motion: 'hip.flexion', side: 'right', limit: 90, until: null, source: 'surgeon' } as const;

describe('PreparePage', () => {
  beforeEach(() => localStorage.clear());

  let fixture: ComponentFixture<PreparePage>;
  let http: HttpTestingController;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = (selector: string) => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  const all = (selector: string) =>
    [...page().querySelectorAll<HTMLElement>(selector)].map((e) => e.textContent!.replace(/\s+/g, ' ').trim());
  const button = (label: string): HTMLButtonElement =>
    [...page().querySelectorAll('button')].find((b) => b.textContent!.includes(label) || b.getAttribute('aria-label') === label)!;
  const click = async (label: string) => {
    button(label).click();
    await fixture.whenStable();
  };
  const choose = async (set: string) => {
    const chip = [...page().querySelectorAll<HTMLElement>('mat-chip-option')].find((c) => c.textContent!.trim() === set)!;
    chip.querySelector('button')!.click();
    await fixture.whenStable();
  };
  const rows = () => all('dg-plan-list .row .what');

  const open = async (record: VisitRecord = visitRecord(), practice = PRACTICE) => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(PreparePage);
    fixture.componentRef.setInput('id', SOME_ID);
    document.body.append(page());
    fixture.detectChanges();
    http.expectOne(`/api/visits/${SOME_ID}`).flush(record);
    http.expectOne('/api/clinic').flush(practice);
    await until(() => http.match(`/api/visits/${SOME_ID}/screens`).map((request) => request.flush(NO_SCREENS)).length > 0);
    await nothingLogged(http);
    await fixture.whenStable();
  };
  const answer = async (url: string, body: object) => {
    const request = http.expectOne(url);
    request.flush(body);
    await fixture.whenStable();
    return request.request.body as Record<string, unknown>;
  };
  afterEach(() => page().remove());

  it('teaches what to do where nothing is chosen, and does not start', async () => {
    await open();
    expect(text('dg-plan-list .empty')).toContain('Choose a ready set');
    await click('Start measuring');
    expect(text('footer [role=alert]')).toBe('Choose what to measure.');
    http.expectNone(`/api/visits/${SOME_ID}/plan`);
  });

  it('proposes what was measured last time', async () => {
    await open(
      visitRecord({
        previous: { assessedOn: '2026-10-20', measurements: [storedMeasurement({}, 90), storedMeasurement({ side: 'right' }, 90)] },
      }),
    );
    expect(rows()).toEqual(['Hip flexion active · left, right', 'Hip flexion passive · left, right']);
  });

  it('orders what is chosen, asks first, and saves the run sheet before it goes on', async () => {
    await open();
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await choose('Hip');
    expect(text('.sums')).toBe('24 measurements, 10 min, 1 turn');
    expect(all('dg-plan-list .turn')).toEqual(['↷ Begin supine', '↷ Turn patient prone']);
    await click('Start measuring');
    expect(text('footer [role=alert]')).toBe('Ask the caution questions first.');
    await click('None of these');
    const cautions = { asked: ['clot-leg'], yes: [], note: '', outcome: 'measure', by: 'Wren', at: '2026-11-20T09:00:00Z' } as const;
    const asked = await answer(
      `/api/visits/${SOME_ID}/cautions`,
      visitRecord({ cautions: { ...cautions, asked: [...cautions.asked], yes: [] } }),
    );
    expect(asked['yes']).toEqual([]);
    expect(asked['asked']).toContain('clot-leg');
    expect(asked['asked']).not.toContain('clot-arm');
    await click('Start measuring');
    const { plan, revision } = (await answer(`/api/visits/${SOME_ID}/plan`, visitRecord())) as {
      plan: { steps: object[] };
      revision: number;
    };
    expect(plan.steps.length).toBe(24);
    expect(plan.steps[0]).toEqual({ protocol: 'hip.flexion/supine', side: 'left', mode: 'active', seconds: 22 });
    expect(revision).toBe(0);
    expect(navigate).toHaveBeenCalledOnceWith(['/visits', SOME_ID, 'measure']);
  });

  it('starts after an answer that is still on its way', async () => {
    await open(visitRecord({ sheet: [{ protocol: 'knee.flexion/supine' }] }));
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const cautions = { asked: ['clot-leg'], yes: [], note: '', outcome: 'measure' as const, by: 'Wren', at: '2026-11-20T09:00:00Z' };
    await click('None of these');
    await click('Start measuring');
    expect(text('footer [role=alert]')).toBe('');
    http.expectNone(`/api/visits/${SOME_ID}/plan`);
    await answer(`/api/visits/${SOME_ID}/cautions`, visitRecord({ cautions }));
    await answer(`/api/visits/${SOME_ID}/plan`, visitRecord({ cautions }));
    expect(navigate).toHaveBeenCalledOnceWith(['/visits', SOME_ID, 'measure']);
  });

  it('says why an answer was not saved, and not that none was given', async () => {
    await open(visitRecord({ sheet: [{ protocol: 'knee.flexion/supine' }] }));
    await click('None of these');
    await click('Start measuring');
    http.expectOne(`/api/visits/${SOME_ID}/cautions`).error(new ProgressEvent('error'));
    await fixture.whenStable();
    expect(text('footer [role=alert]')).toContain('cannot be reached');
    http.expectNone(`/api/visits/${SOME_ID}/plan`);
  });

  it('ends with referring where a question is answered yes, and says what to do', async () => {
    await open(visitRecord({ sheet: [{ protocol: 'knee.flexion/supine' }] }));
    const box = [...page().querySelectorAll<HTMLElement>('mat-checkbox')].find((c) => c.textContent!.includes('of the calf or thigh'))!;
    box.querySelector('input')!.click();
    await fixture.whenStable();
    await click('Record 1 yes');
    const asked = cautionsFor(touchOf(MODES.map((mode) => ({ protocol: 'knee.flexion/supine', mode })))).map((question) => question.id);
    const cautions = { asked, yes: ['clot-leg'], note: '', outcome: 'refer' as const, by: 'Wren', at: '2026-11-20T09:00:00Z' };
    const sent = await answer(`/api/visits/${SOME_ID}/cautions`, visitRecord({ cautions }));
    expect(sent['yes']).toEqual(['clot-leg']);
    expect(text('dg-cautions .outcome')).toContain('Do not measure: refer');
    expect(text('dg-cautions .outcome')).toContain('Do not squeeze or stretch the calf');
    await click('Start measuring');
    expect(text('footer [role=alert]')).toBe('A caution question ended this visit: refer.');
    // Opened again only with a reason.
    await click('Ask again');
    const again = [...page().querySelectorAll<HTMLElement>('mat-checkbox')].find((c) => c.textContent!.includes('of the calf or thigh'))!;
    again.querySelector('input')!.click();
    await fixture.whenStable();
    await click('None of these');
    expect(text('dg-cautions [role=alert]')).toContain('type why it may go on');
    http.expectNone(`/api/visits/${SOME_ID}/cautions`);
  });

  it('stops at a limit, leaves out what is forbidden, and says by whom', async () => {
    const precautions = [LIMIT, { ...LIMIT, motion: 'hip.abduction' as const, limit: null }];
    await open(visitRecord({ episode: { ...visitRecord().episode, precautions } }));
    await choose('Hip');
    expect(rows()[0]).toBe('Hip flexion active · left, right · right stops at 90°');
    expect(all('.out li')).toEqual([
      'Right hip abduction, active hip abduction: not to be measured (surgeon)',
      'Right hip abduction, passive hip abduction: not to be measured (surgeon)',
      'Left hip adduction, active hip abduction: not to be measured (surgeon); this way takes the other hip abduction to 30°',
      'Left hip adduction, passive hip abduction: not to be measured (surgeon); this way takes the other hip abduction to 30°',
    ]);
  });

  it('fits the minutes, and keeps what is wanted in spite of them', async () => {
    await open();
    await choose('Hip');
    const minutes = page().querySelector<HTMLInputElement>('.field input')!;
    minutes.value = '5';
    minutes.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(text('.sums')).toMatch(/^\d+ measurements, 5 min, .* left out$/);
    const out = all('.out li strong')[0]!;
    await click('Keep it');
    expect(all('.out li strong')).not.toContain(out);
    minutes.value = 'soon';
    minutes.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(text('footer [role=alert]')).toContain('allowed: whole minutes from 1 to 240');
  });

  it('moves a line by the keyboard, locks it there, and orders again when told to', async () => {
    await open();
    await choose('Hip');
    const handle = () => page().querySelectorAll<HTMLButtonElement>('.handle');
    handle()[2]!.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true, cancelable: true }));
    await fixture.whenStable();
    expect(rows().slice(0, 3)).toEqual([
      'Hip flexion active · left, right',
      'Hip abduction active · left, right',
      'Hip flexion passive · left, right',
    ]);
    expect(text('dg-plan-list [aria-live]')).toBe('Hip abduction, active: line 2 of 12, 1 turns');
    expect(page().querySelectorAll('.mark[aria-pressed=true]').length).toBe(3);
    await click('order again');
    expect(rows()[1]).toBe('Hip flexion passive · left, right');
  });

  it('puts what provokes last, on the side that hurts', async () => {
    await open();
    await choose('Hip');
    await click('Provokes pain: Hip flexion, passive');
    expect(all('dg-plan-list .turn')).toEqual(['↷ Begin prone', '↷ Turn patient supine']);
    expect(rows()[rows().length - 1]).toBe('Hip flexion passive · right');
  });

  it('saves the intake when a field is left, with the revision it was read at', async () => {
    await open();
    const complaint = page().querySelector<HTMLInputElement>('[formControlName=complaint]')!;
    complaint.value = 'stiff right hip';
    complaint.dispatchEvent(new Event('input'));
    http.expectNone(`/api/episodes/${SOME_ID}/intake`);
    complaint.dispatchEvent(new Event('blur'));
    const sent = await answer(`/api/episodes/${SOME_ID}/intake`, { ...visitRecord().episode, complaint: 'stiff right hip', revision: 1 });
    expect(sent).toEqual(jasmine.objectContaining({ complaint: 'stiff right hip', revision: 0, involvedSide: 'right', precautions: [] }));
    expect(text('.status')).toBe('saved');
  });

  it('proposes the usual precautions after a procedure, and says that the surgeon’s win', async () => {
    const episode = { ...visitRecord().episode, procedureId: 'meniscus-repair', procedureOn: '2026-11-02' };
    await open(visitRecord({ episode }));
    expect(text('dg-precautions')).toContain('The surgeon’s limits for this patient win');
    await click('Propose the 4 usual');
    const sent = await answer(`/api/episodes/${SOME_ID}/intake`, {
      ...episode,
      precautions: [{ ...LIMIT, motion: 'knee.flexion', until: '2026-12-14' }],
      revision: 1,
    });
    const source = (week: number, confidence = 'medium') =>
      `usual after meniscus repair, vertical, to week ${week} (from memory, confidence ${confidence})`;
    const knee = { motion: 'knee.flexion', side: 'right' };
    expect(sent['precautions']).toEqual([
      { ...knee, limit: 90, until: '2026-12-14', source: source(6) },
      { ...knee, kind: 'resisted', limit: null, until: '2026-12-28', source: source(8) },
      { ...knee, kind: 'weight', limit: 90, until: '2027-02-22', source: source(16, 'high') },
      { ...knee, kind: 'weight', limit: 20, until: '2026-12-14', source: source(6) },
    ]);
    expect(text('dg-precautions li')).toContain('right knee flexion: not past 90° until 14 Dec 2026 · surgeon');
  });

  it('changes a precaution in its place', async () => {
    const other = { ...LIMIT, motion: 'knee.flexion' as const };
    await open(visitRecord({ episode: { ...visitRecord().episode, precautions: [LIMIT, other] } }));
    await click('Change: hip flexion: not past 90°');
    const limit = page().querySelector<HTMLInputElement>('dg-precautions input[inputmode=numeric]')!;
    expect(limit.value).toBe('90');
    limit.value = '100';
    limit.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    await click('Change precaution');
    const sent = await answer(`/api/episodes/${SOME_ID}/intake`, { ...visitRecord().episode, revision: 1 });
    expect(sent['precautions']).toEqual([{ ...LIMIT, limit: 100 }, other]);
  });

  it('shows what says the same of several motions in one line, until it is opened', async () => {
    const of = (motion: MotionId) => ({ ...LIMIT, motion, kind: 'resisted' as const, limit: null });
    const precautions = [of('shoulder.flexion'), of('shoulder.abduction'), of('knee.flexion')];
    await open(visitRecord({ episode: { ...visitRecord().episode, precautions } }));
    expect(all('dg-precautions li strong')).toEqual([
      'right shoulder flexion, abduction: not against resistance',
      'right knee flexion: not against resistance',
    ]);
    await click('Show each: shoulder flexion, abduction: not against resistance');
    expect(all('dg-precautions li strong').length).toBe(3);
    await click('Remove: shoulder abduction: not against resistance');
    const sent = await answer(`/api/episodes/${SOME_ID}/intake`, { ...visitRecord().episode, revision: 1 });
    expect(sent['precautions']).toEqual([precautions[0], precautions[2]]);
  });

  it('asks for the signs that end even care only after a yes', async () => {
    await open(visitRecord({ sheet: [{ protocol: 'cervical.rotation/sitting' }] }));
    const labels = () => all('dg-cautions mat-checkbox').join(' ');
    expect(labels()).not.toContain('lips tingle');
    const box = [...page().querySelectorAll<HTMLElement>('mat-checkbox')].find((c) => c.textContent!.includes('long steroids'))!;
    box.querySelector('input')!.click();
    await fixture.whenStable();
    expect(labels()).toContain('lips tingle');
    await click('Record 1 yes');
    const cautions = {
      asked: ['upper-neck'],
      yes: ['upper-neck'],
      note: '',
      outcome: 'measure-with-care' as const,
      by: 'Wren',
      at: '2026-11-20T09:00:00Z',
    };
    const sent = await answer(`/api/visits/${SOME_ID}/cautions`, visitRecord({ cautions }));
    expect([sent['yes'], (sent['asked'] as string[]).includes('upper-neck-signs')]).toEqual([['upper-neck'], true]);
  });

  it('asks where an answer is about, and leaves out of the plan what it forbids there', async () => {
    await open(visitRecord({ sheet: [{ protocol: 'knee.flexion/supine' }, { protocol: 'shoulder.flexion/supine' }] }));
    const box = [...page().querySelectorAll<HTMLElement>('mat-checkbox')].find((c) => c.textContent!.includes('A tendon, ligament'))!;
    box.querySelector('input')!.click();
    await fixture.whenStable();
    expect(text('dg-cautions .where')).toContain('Until it is said, it holds everywhere.');
    [...page().querySelectorAll<HTMLButtonElement>('.where .chip')].find((chip) => chip.textContent!.trim() === 'knee')!.click();
    await fixture.whenStable();
    expect(text('dg-cautions .where')).not.toContain('everywhere');
    await click('Record 1 yes');
    const where = { 'repair-unknown': ['knee'] };
    const answers = { yes: ['repair-unknown'], where };
    const cautions = { asked: ['repair-unknown'], ...answers, note: '', outcome: 'refer' as const, by: 'Wren', at: '2026-11-20T09:00:00Z' };
    const { visit } = visitRecord();
    const sent = await answer(`/api/visits/${SOME_ID}/cautions`, visitRecord({ cautions, visit: { ...visit, answers } }));
    expect([sent['yes'], sent['where']]).toEqual([['repair-unknown'], where]);
    expect(text('dg-cautions .outcome')).toContain('Left out at this visit');
    expect(text('dg-plan-list')).toContain('answered yes: a repair whose limits are not known');
    expect(text('.sums')).toContain('left out');
  });

  it('says what is wrong with a precaution', async () => {
    await open();
    await click('Add a precaution');
    await click('Add precaution');
    expect(text('dg-precautions [role=alert]')).toContain('Motion: "" is not in the library');
  });

  it('keeps a choice as a set of the clinic’s own', async () => {
    await open();
    await choose('Knee after replacement');
    page().querySelector<HTMLInputElement>('.set-name')!.value = 'Our knee';
    await click('Keep as own set');
    const sent = await answer('/api/exam-sets', {
      ...PRACTICE,
      examSets: [{ id: SOME_ID, name: 'Our knee', items: [{ protocol: 'knee.flexion/supine' }] }],
    });
    expect(sent['name']).toBe('Our knee');
    expect((sent['items'] as object[]).length).toBe(4);
    expect(all('mat-chip-option')).toContain('Our knee');
  });

  it('has after a reload what was chosen before it, and forgets it once it is the visit’s', async () => {
    await open();
    await choose('Hip');
    await choose('Knee');
    const chosen = rows();
    expect(chosen.length).toBeGreaterThan(6);
    page().remove();
    TestBed.resetTestingModule();
    await open();
    expect(rows()).toEqual(chosen);
    expect(all('mat-chip-option.mat-mdc-chip-selected')).toEqual(['Hip', 'Knee']);
    // Somebody else has set the run sheet meanwhile: theirs stands.
    page().remove();
    TestBed.resetTestingModule();
    await open(visitRecord({ revision: 3 }));
    expect(rows()).toEqual([]);
  });

  it('leads to the first open question where those stop the start', async () => {
    await open();
    await choose('Hip');
    await click('Start measuring');
    expect(text('footer [role=alert]')).toBe('Ask the caution questions first.');
    expect(document.activeElement?.closest('dg-cautions')).withContext('the first question has the focus').not.toBeNull();
    expect(document.activeElement).toBe(page().querySelector('dg-cautions input'));
  });
});
