import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import type { ErasureView } from '@dial-gauge/contract';
import { SOME_ID, visitRecord } from '../testing/records';
import { EraseDialog } from './erase.dialog';

const MAY: ErasureView = {
  from: '2026-01-01',
  against: [],
  keepYears: 10,
  goes: [
    { table: 'visit', rows: 3 },
    { table: 'trial', rows: 40 },
  ],
  stays: ['backups, until the last one that holds the record is thrown away'],
};

describe('erasing a record', () => {
  let http: HttpTestingController;
  let fixture: ComponentFixture<EraseDialog>;
  let closed: unknown[];
  const url = `/api/patients/${SOME_ID}/erasure`;
  beforeEach(() => {
    closed = [];
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        { provide: MAT_DIALOG_DATA, useValue: visitRecord().patient },
        { provide: MatDialogRef, useValue: { close: (with_: unknown) => closed.push(with_), id: 'x', _containerInstance: null } },
      ],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(EraseDialog);
    fixture.detectChanges();
  });
  afterEach(() => http.verify());

  const opened = async (view: ErasureView) => {
    http.expectOne(url).flush(view);
    await fixture.whenStable();
    fixture.detectChanges();
    await fixture.whenStable();
  };
  const host = () => fixture.nativeElement as HTMLElement;
  const words = () => host().textContent.replace(/\s+/g, ' ');
  const type = (name: string, text: string) => {
    const field = host().querySelector<HTMLInputElement>(`input[name=${name}]`)!;
    field.value = text;
    field.dispatchEvent(new Event('input'));
  };
  const press = async () => {
    [...host().querySelectorAll('button')].find((button) => button.textContent.includes('Erase for good'))!.click();
    await fixture.whenStable();
    fixture.detectChanges();
  };

  it('says what goes and what stays, and wants the whole name and a reason', async () => {
    await opened(MAY);
    expect(words()).toContain('43 entries go');
    expect(words()).toContain('backups, until the last one');
    type('name', 'Ilka');
    await press();
    expect(words()).toContain('Type the whole name, Ilka Marsh');
    type('name', 'Ilka Marsh');
    await press();
    expect(words()).toContain('Type why it is erased');
    type('why', 'the time is over');
    await press();
    const first = http.expectOne({ method: 'POST', url });
    first.flush({ title: 'Not yet', status: 409, detail: 'Nothing was erased. An episode is in care.' }, { status: 409, statusText: 'x' });
    await fixture.whenStable();
    fixture.detectChanges();
    expect(words()).toContain('Nothing was erased. An episode is in care.');
    await press();
    const again = http.expectOne({ method: 'POST', url });
    // The same sending: what was done once is not done twice.
    expect((again.request.body as { id: string }).id).toBe((first.request.body as { id: string }).id);
    again.flush({ at: '2026-11-27T10:00:00Z', rows: 43 });
    await fixture.whenStable();
    expect(closed).toEqual([{ at: '2026-11-27T10:00:00Z', rows: 43 }]);
  });

  it('offers nothing before the time is over, and says from when on', async () => {
    await opened({ ...MAY, from: '2036-05-01', against: ['A record is kept 10 years after the last entry: until 2036-05-01.'] });
    expect(words()).toContain('1 May 2036');
    expect(words()).not.toContain('Erase for good');
  });
});
