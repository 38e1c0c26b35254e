import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { until } from '../testing/until';
import { LazyDialog } from './lazy-dialog';
import { Parts } from './parts';

@Component({ template: 'asked', changeDetection: ChangeDetectionStrategy.OnPush })
class Question {}

describe('LazyDialog', () => {
  const open = (answers: unknown[]) =>
    TestBed.inject(LazyDialog)
      .open(() => Promise.resolve(Question), {})
      .subscribe((answer) => answers.push(answer));

  it('opens one of two presses, tells what it is closed with, and opens again after it', async () => {
    const answers: unknown[] = [];
    open(answers);
    open(answers);
    const dialogs = TestBed.inject(MatDialog);
    await until(() => dialogs.openDialogs.length === 1);
    dialogs.openDialogs[0]!.close('yes');
    await until(() => answers.length === 1);
    expect(answers).toEqual(['yes']);
    open(answers);
    await until(() => dialogs.openDialogs.length === 1);
    dialogs.closeAll();
    await until(() => answers.length === 2);
  });

  it('tells what could not be fetched, and is free again', async () => {
    const parts = TestBed.inject(Parts);
    let ended = false;
    TestBed.inject(LazyDialog)
      .open(() => Promise.reject(new Error('offline')), {})
      .subscribe({ complete: () => (ended = true) });
    await until(() => ended);
    expect(parts.missing()).toBeTrue();
    const answers: unknown[] = [];
    open(answers);
    const dialogs = TestBed.inject(MatDialog);
    await until(() => dialogs.openDialogs.length === 1);
    expect(parts.missing()).toBeFalse();
    dialogs.closeAll();
    await until(() => answers.length === 1);
  });
});
