import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import { SOME_ID, visitRecord } from '../testing/records';
import { shownDialog, until } from '../testing/until';
import { PatientPage } from './patient';
import { today } from './words';

/** A record of which there is nothing else to say. */
const NOTHING_ELSE = { mergedInto: null, doubles: [], merges: [], episodes: [] };

describe('the record of a person', () => {
  let http: HttpTestingController;
  const words = (fixture: ComponentFixture<unknown>) => (fixture.nativeElement as HTMLElement).textContent.replace(/\s+/g, ' ');
  beforeEach(() => {
    localStorage.clear();
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    http = TestBed.inject(HttpTestingController);
  });

  const record = (patient: object, episodes: readonly object[], over: object = {}) => ({
    ...NOTHING_ELSE,
    patient: { ...patient, gender: '', fileNumber: '', revision: 3 },
    episodes,
    ...over,
  });
  const open = async (over: object = {}, ended: object | null = null) => {
    const fixture = TestBed.createComponent(PatientPage);
    const { patient, episode } = visitRecord();
    fixture.componentRef.setInput('id', patient.id);
    fixture.detectChanges();
    const shown = record(patient, [{ ...episode, ended, visits: [] }], over);
    http.expectOne(`/api/patients/${patient.id}`).flush(shown);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const press = (name: string, within: Element = page) =>
      [...within.querySelectorAll<HTMLButtonElement>('button')].find((b) => b.textContent.trim() === name)!.click();
    return { fixture, page, press, shown, episode, patient };
  };
  const sent = (path: string) => until(() => http.match((request) => request.url === path)[0]);

  it('is put right, with what stood before beside it', async () => {
    const { fixture, press, shown, patient } = await open();
    press('Put right who they are');
    const dialog = await shownDialog();
    (await sent(`/api/patients/${patient.id}/changes`)).flush([
      { at: '2026-11-20T09:00:00.000Z', by: 'Rook', field: 'familyName', before: 'March', after: 'Marsh' },
    ]);
    await fixture.whenStable();
    expect(dialog.textContent).toContain('family name was March, now Marsh');
    const field = dialog.querySelector<HTMLInputElement>('[formControlName=occupation]')!;
    field.value = 'Diver';
    field.dispatchEvent(new Event('input'));
    press('Put it right', dialog);
    const request = await sent(`/api/patients/${patient.id}`);
    expect(request.request.body).toEqual(jasmine.objectContaining({ occupation: 'Diver', revision: 3, gender: '' }));
    request.flush({ ...shown, patient: { ...shown.patient, occupation: 'Diver' } });
    await until(() => words(fixture).includes('Diver'));
  });

  it('is ended with its outcome, and taken up again with a reason', async () => {
    const { fixture, press, shown, episode } = await open();
    press('Discharge');
    const dialog = await shownDialog();
    press('Discharge', dialog);
    await fixture.whenStable();
    expect(dialog.textContent).toContain('Choose how it came to an end');
    dialog.querySelector<HTMLElement>('.mat-mdc-select-trigger')!.click();
    const option = await until(() =>
      [...document.querySelectorAll<HTMLElement>('mat-option')].find((one) => one.textContent.includes('goals met')),
    );
    option.click();
    await fixture.whenStable();
    press('Discharge', dialog);
    const request = await sent(`/api/episodes/${episode.id}/discharge`);
    expect(request.request.body).toEqual({ outcome: 'goal-met', on: today(), note: '' });
    const ended = { on: '2026-11-27', outcome: 'goal-met', note: '', by: 'Wren' };
    request.flush({ ...shown, episodes: [{ ...shown.episodes[0], ended }] });
    await until(() => words(fixture).includes('discharged 27 Nov 2026 by Wren: goals met'));
    expect(words(fixture)).not.toContain('Start visit');
    expect(words(fixture)).toContain('Take it up again');
  });

  it('tells who may be the same person, makes them one when that was agreed, and takes them apart', async () => {
    const double = { ...visitRecord().patient, id: SOME_ID, givenName: 'Ilsa', fileNumber: 'F7', episodes: 1 };
    const { fixture, press, shown, patient } = await open({ doubles: [double] });
    expect(words(fixture)).toContain('Perhaps the same person: Ilsa Marsh');
    press('Make them one');
    press('Make them one', await shownDialog());
    const request = await sent(`/api/patients/${patient.id}/merges`);
    expect(request.request.body).toEqual({ id: jasmine.any(String), other: SOME_ID });
    const merges = [{ id: SOME_ID, name: 'Ilsa Marsh', by: 'Wren', at: '2026-11-27T10:00:00.000Z', episodes: 1 }];
    request.flush({ ...shown, doubles: [], merges });
    await until(() => words(fixture).includes('was made one with this record by Wren'));
    press('Take them apart');
    (await sent(`/api/merges/${SOME_ID}/undoing`)).flush({ ...shown, doubles: [], merges: [] });
    await until(() => !words(fixture).includes('was made one'));
  });

  it('that went into another one says so, and is not changed', async () => {
    const { page } = await open({ mergedInto: SOME_ID });
    expect(page.querySelector('[role=status] a')?.getAttribute('href')).toBe(`/patients/${SOME_ID}`);
    expect(page.textContent).not.toContain('Put right who they are');
  });

  it('starts the next visit with an id of its own, and says why when it cannot', async () => {
    const fixture = TestBed.createComponent(PatientPage);
    const { patient, episode, visit } = visitRecord();
    fixture.componentRef.setInput('id', patient.id);
    fixture.detectChanges();
    http.expectOne(`/api/patients/${patient.id}`).flush(record(patient, [{ ...episode, ended: null, visits: [{ ...visit, number: 1 }] }]));
    await fixture.whenStable();
    const button = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')].find(
      (b) => b.textContent.trim() === 'Start visit 2',
    )!;
    button.click();
    const request = http.expectOne(`/api/episodes/${episode.id}/visits`);
    expect(request.request.body).toEqual({
      id: jasmine.stringMatching(/^[0-9a-f-]{36}$/),
      assessedOn: today(),
    });
    request.flush({ detail: 'no', errors: [{ path: 'assessedOn', message: 'lies in the future' }] }, { status: 422, statusText: 'x' });
    await fixture.whenStable();
    expect(words(fixture)).toContain('assessedOn: lies in the future');
  });
});
