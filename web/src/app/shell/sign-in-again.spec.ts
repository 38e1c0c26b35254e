import { HttpClient, HttpContext, provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { problemType } from '@dial-gauge/contract';
import { Subject } from 'rxjs';
import { QUIETLY } from '../data/api';
import { askToSignInAgain } from './sign-in-again';
import { turns } from '../testing/until';

/** The dialog is loaded when it is needed; a test waits for that, not for a time. */
const loaded = () => import('./sign-in-again.dialog').then(() => turns());

describe('an ended session', () => {
  let http: HttpTestingController;
  let client: HttpClient;
  let closed: Subject<boolean>;
  let open: jasmine.Spy;

  beforeEach(() => {
    closed = new Subject();
    open = jasmine.createSpy('open').and.callFake(() => ({ afterClosed: () => closed }));
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(withInterceptors([askToSignInAgain])),
        provideHttpClientTesting(),
        { provide: MatDialog, useValue: { open } },
      ],
    });
    http = TestBed.inject(HttpTestingController);
    client = TestBed.inject(HttpClient);
  });
  const end = (url: string) => http.expectOne(url).flush({}, { status: 401, statusText: 'ended' });

  it('asks once for all requests that ran into it, then sends each again', async () => {
    const answers: unknown[] = [];
    client.post('/api/a', 1).subscribe((a) => answers.push(a));
    client.get('/api/b').subscribe((a) => answers.push(a));
    end('/api/a');
    end('/api/b');
    await loaded();
    expect(open).toHaveBeenCalledTimes(1);
    closed.next(true);
    closed.complete();
    http.expectOne('/api/a').flush('A');
    http.expectOne('/api/b').flush('B');
    expect(answers).toEqual(['A', 'B']);
  });

  it('interrupts nobody for what nobody waits for', async () => {
    let status = 0;
    const context = new HttpContext().set(QUIETLY, true);
    client.get('/api/at-hand', { context }).subscribe({ error: (e: { status: number }) => (status = e.status) });
    end('/api/at-hand');
    await loaded();
    expect(status).toBe(401);
    expect(open).not.toHaveBeenCalled();
  });

  it('leaves signing in, and asking who is signed in, alone', async () => {
    let status = 0;
    client.post('/api/session', {}).subscribe({ error: (e: { status: number }) => (status = e.status) });
    end('/api/session');
    await loaded();
    expect(status).toBe(401);
    expect(open).not.toHaveBeenCalled();
  });

  it('asks for the password where it is wanted again after a rest, and sends the request once more', async () => {
    let answer: unknown;
    client.post('/api/visits/1/signatures', {}).subscribe((a) => (answer = a));
    const problem = { type: problemType('proof'), title: '', status: 403, detail: '' };
    http.expectOne('/api/visits/1/signatures').flush(problem, { status: 403, statusText: 'x' });
    await import('./prove.dialog').then(() => turns());
    expect(open).toHaveBeenCalledTimes(1);
    closed.next(true);
    closed.complete();
    http.expectOne('/api/visits/1/signatures').flush('signed');
    expect(answer).toBe('signed');
  });

  it('leaves alone what a role does not go as far as, and a code that is still wanted', async () => {
    const refused: number[] = [];
    for (const [kind, status] of [
      ['role', 403],
      ['second-factor', 401],
    ] as const) {
      client.post(`/api/${kind}`, {}).subscribe({ error: (e: { status: number }) => refused.push(e.status) });
      http.expectOne(`/api/${kind}`).flush({ type: problemType(kind), title: '', status, detail: '' }, { status, statusText: 'x' });
    }
    await loaded();
    expect(refused).toEqual([403, 401]);
    expect(open).not.toHaveBeenCalled();
  });
});
