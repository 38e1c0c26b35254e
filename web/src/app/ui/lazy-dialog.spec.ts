import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { until } from '../testing/until';
import { LazyDialog } from './lazy-dialog';

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

  it('is free again where the dialog could not be fetched', async () => {
    const failures: unknown[] = [];
    TestBed.inject(LazyDialog)
      .open(() => Promise.reject(new Error('offline')), {})
      .subscribe({ error: (error: Error) => failures.push(error.message) });
    await until(() => failures.length === 1);
    const answers: unknown[] = [];
    open(answers);
    const dialogs = TestBed.inject(MatDialog);
    await until(() => dialogs.openDialogs.length === 1);
    dialogs.closeAll();
    await until(() => answers.length === 1);
  });
});
