import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue } from '../testing/fake-queue';
import { visitRecord } from '../testing/records';
import { Exam, EXAM } from './exam';
import { Remarks } from './remarks';

describe('Remarks', () => {
  let fixture: ComponentFixture<Remarks>;
  let exam: Exam;
  let queue: FakeQueue;
  const page = () => fixture.nativeElement as HTMLElement;
  const pain = () => page().querySelector<HTMLInputElement>('.level')!;
  const sent = () => queue.commands.shift()?.body as unknown as Record<string, unknown> | undefined;
  const enter = (field: HTMLInputElement, value: string) => {
    field.value = value;
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  };

  beforeEach(async () => {
    queue = new FakeQueue();
    TestBed.configureTestingModule({ providers: [EXAM, { provide: CommandQueue, useValue: queue }] });
    exam = TestBed.inject(Exam);
    await exam.commands.open(visitRecord());
    fixture = TestBed.createComponent(Remarks);
    await fixture.whenStable();
  });

  it('sends pain for the motion in hand, once', () => {
    enter(pain(), '4');
    expect(sent()).toEqual(jasmine.objectContaining({ motion: 'hip.flexion', side: 'left', mode: 'active', position: 'supine', pain: 4 }));
    enter(pain(), '4');
    expect(sent()).toBeUndefined();
  });

  it('refuses pain that is not on the scale, and keeps it on the screen', () => {
    for (const wrong of ['11', '-1', '2.5', 'x']) {
      enter(pain(), wrong);
      expect(exam.course.problem()).withContext(wrong).toContain('allowed: whole numbers from 0 (none) to 10');
      expect(pain().value).toBe(wrong);
    }
    expect(sent()).toBeUndefined();
  });

  it('offers an end feel only where somebody else moves the joint', async () => {
    expect(page().textContent).not.toContain('End feel');
    exam.course.otherMode();
    await fixture.whenStable();
    expect(page().textContent).toContain('End feel');
    const soft = [...page().querySelectorAll<HTMLElement>('mat-chip-option')].find((chip) => chip.textContent!.includes('soft'))!;
    expect(soft.classList).toContain('usual');
    soft.querySelector<HTMLButtonElement>('button')!.click();
    expect(sent()).toEqual(jasmine.objectContaining({ mode: 'passive', endFeel: 'soft' }));
  });

  it('offers the substitutions of the protocol, several at once', async () => {
    const chip = (words: string) =>
      [...page().querySelectorAll<HTMLElement>('mat-chip-option')].find((c) => c.textContent!.includes(words))!.querySelector('button')!;
    chip('pelvis rolls back').click();
    await fixture.whenStable();
    chip('leg turns out').click();
    await fixture.whenStable();
    expect([...exam.record.cell().substitutions].sort()).toEqual(['leg-turns-out', 'pelvis-rolls-back']);
  });

  it('notes that something was not done, and why, and anything else', async () => {
    const chip = [...page().querySelectorAll<HTMLElement>('mat-chip-option')].find((c) => c.textContent!.includes('refused'))!;
    chip.querySelector('button')!.click();
    await fixture.whenStable();
    expect(sent()).toEqual(jasmine.objectContaining({ notDone: 'refused', was: { notDone: null } }));
    const field = (label: string) => page().querySelector<HTMLInputElement>(`input[aria-label="${label}"]`)!;
    enter(field('Why it was not done'), 'too sore');
    expect(sent()).toEqual(jasmine.objectContaining({ notDoneWhy: 'too sore' }));
    enter(field('Note'), ' try later ');
    expect(sent()).toEqual(jasmine.objectContaining({ note: 'try later' }));
    enter(field('Note'), 'try later');
    expect(sent()).toBeUndefined();
  });

  it('gives the hands back on Escape', () => {
    let done = 0;
    fixture.componentInstance.done.subscribe(() => (done += 1));
    pain().dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    expect(done).toBe(1);
  });
});
