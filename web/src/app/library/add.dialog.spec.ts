import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import type { SheetItem } from '@dial-gauge/core';
import { AddDialog } from './add.dialog';

describe('AddDialog', () => {
  const close = jasmine.createSpy('close');
  const open = (sheet: readonly SheetItem[]) => {
    close.calls.reset();
    TestBed.configureTestingModule({
      providers: [
        { provide: MatDialogRef, useValue: { close } },
        { provide: MAT_DIALOG_DATA, useValue: sheet },
      ],
    });
    const fixture = TestBed.createComponent(AddDialog);
    fixture.detectChanges();
    const element = fixture.nativeElement as HTMLElement;
    const field = element.querySelector<HTMLInputElement>('input[type=search]')!;
    return {
      type: (words: string) => {
        field.value = words;
        field.dispatchEvent(new Event('input'));
        fixture.detectChanges();
      },
      enter: () => field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', cancelable: true })),
      choices: () => [...element.querySelectorAll<HTMLButtonElement>('li button')],
      status: () => element.querySelector('[role=status]')!.textContent,
    };
  };

  it('adds the first that is not on the sheet yet', () => {
    const dialog = open([{ protocol: 'knee.flexion/supine' }]);
    dialog.type('knee flexion supine');
    expect(dialog.choices()[0]!.textContent).toContain('on the sheet');
    expect(dialog.choices()[0]!.disabled).toBeTrue();
    dialog.enter();
    const added = close.calls.mostRecent().args[0] as SheetItem;
    expect(added.protocol).not.toBe('knee.flexion/supine');
  });

  it('offers a finger’s joint for every finger', () => {
    const dialog = open([{ protocol: 'fingerPip.flexion/sitting', digit: 3 }]);
    dialog.type('PIP flexion');
    const names = dialog.choices().map((button) => button.textContent!.trim().replace(/\s+/g, ' '));
    expect(names.filter((name) => name.startsWith('Finger middle joint (PIP) flexion, sitting'))).toEqual([
      'Finger middle joint (PIP) flexion, sitting, index finger',
      'Finger middle joint (PIP) flexion, sitting, middle finger on the sheet',
      'Finger middle joint (PIP) flexion, sitting, ring finger',
      'Finger middle joint (PIP) flexion, sitting, little finger',
    ]);
    dialog
      .choices()
      .find((button) => button.textContent!.includes('ring finger'))!
      .click();
    expect(close).toHaveBeenCalledOnceWith({ protocol: 'fingerPip.flexion/sitting', digit: 4 });
  });

  it('says when nothing is found, and Enter then adds nothing', () => {
    const dialog = open([]);
    dialog.type('zzzz');
    expect(dialog.status()).toBe('Nothing holds all of these words.');
    dialog.enter();
    expect(close).not.toHaveBeenCalled();
  });
});
