import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { defer, of, Subject, throwError, type Observable } from 'rxjs';
import { Outbox } from './outbox';
import type { Failure } from './problem';

describe('Outbox', () => {
  let outbox: Outbox;
  let log: string[];
  const failing = (status: number, body: object = {}) => throwError(() => new HttpErrorResponse({ status, error: body }));
  const sending = (id: string, send: () => Observable<unknown>) => ({
    id,
    send: () => defer(() => (log.push(`send ${id}`), send())),
    saved: () => void log.push(`saved ${id}`),
    refused: (failure: Failure) => void log.push(`refused ${id}: ${failure.message}`),
  });

  beforeEach(() => {
    jasmine.clock().install();
    log = [];
    outbox = TestBed.inject(Outbox);
  });
  afterEach(() => jasmine.clock().uninstall());

  it('sends one after another, in order', () => {
    const first = new Subject<unknown>();
    outbox.add(sending('a', () => first));
    outbox.add(sending('b', () => of(1)));
    expect(log).toEqual(['send a']);
    expect(outbox.waiting()).toBe(2);
    first.next(1);
    first.complete();
    expect(log).toEqual(['send a', 'saved a', 'send b', 'saved b']);
    expect(outbox.waiting()).toBe(0);
  });

  it('tries again while the trouble is passing, and says what it is', () => {
    let attempts = 0;
    outbox.add(sending('a', () => ((attempts += 1) < 3 ? failing(503, { detail: 'The database does not answer' }) : of(1))));
    expect(outbox.problem()).toBe('The database does not answer');
    expect(outbox.waiting()).toBe(1);
    jasmine.clock().tick(10_000);
    expect(log).toEqual(['send a', 'send a', 'send a', 'saved a']);
    expect(outbox.problem()).toBe('');
  });

  it('hands a refusal back once and goes on with the next', () => {
    outbox.add(sending('a', () => failing(422, { detail: 'Nothing was saved.' })));
    outbox.add(sending('b', () => of(1)));
    expect(log).toEqual(['send a', 'refused a: Nothing was saved.', 'send b', 'saved b']);
  });

  it('waits for a server that is not there', () => {
    let there = false;
    outbox.add(sending('a', () => (there ? of(1) : failing(0))));
    jasmine.clock().tick(20_000);
    expect(outbox.problem()).toContain('cannot be reached');
    expect(log).not.toContain('saved a');
    there = true;
    jasmine.clock().tick(6_000);
    expect(log[log.length - 1]).toBe('saved a');
  });
});
