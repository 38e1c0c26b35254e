import { MatIconTestingModule } from '@angular/material/icon/testing';
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { VisitRecord } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { Lines } from '../live/line';
import { FakeLines } from '../testing/fake-lines';
import { FakeQueue } from '../testing/fake-queue';
import { visitRecord } from '../testing/records';
import { Exam, EXAM } from './exam';
import { Keypad } from './keypad';

@Component({
  imports: [Keypad],
  providers: [EXAM],
  template: '@if (exam.record.visit()) { <dg-keypad /> }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {
  readonly exam = inject(Exam);
}

describe('the keypad', () => {
  let fixture: ComponentFixture<Host>;
  let queue: FakeQueue;
  const exam = () => fixture.componentInstance.exam;
  const keys = () => [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
  const press = (...names: string[]) => {
    for (const name of names)
      keys()
        .find(({ textContent }) => textContent?.trim() === name)!
        .click();
    fixture.detectChanges();
  };
  const open = async (over: Partial<VisitRecord> = {}) => {
    localStorage.clear();
    queue = new FakeQueue();
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [
        { provide: CommandQueue, useValue: queue },
        { provide: Lines, useValue: new FakeLines() },
      ],
    });
    fixture = TestBed.createComponent(Host);
    await exam().commands.open(visitRecord(over));
    fixture.detectChanges();
  };

  it('types what is pressed and holds it, and takes it back', async () => {
    await open();
    press('1', '0', '4');
    expect(exam().typed.text()).toBe('104');
    expect(keys().map(({ textContent }) => textContent?.trim())).toContain('Hold 104°');
    press('Hold 104°');
    expect((queue.next().body as { end: number }).end).toBe(104);
    expect(exam().typed.text()).toBe('');
    press('Undo');
    expect(queue.commands.at(-1)!.route).toBe('withdrawReading');
  });

  it('changes the sign of the figure in hand, the second of a pair too, and takes digits away', async () => {
    await open();
    press('1', '5', '±');
    expect(exam().typed.text()).toBe('-15');
    press('±', '/', '4', '5', '±');
    expect(exam().typed.text()).toBe('15/-45');
    press('⌫', '⌫');
    expect(exam().typed.text()).toBe('15/-');
  });

  it('asks yes or no where an answer is wanted, and holds it with one touch', async () => {
    const yesNo = (await import('@dial-gauge/core')).PROTOCOLS.find(({ reads }) => reads === 'answer')!;
    await open({ sheet: [{ protocol: yesNo.id }] });
    press('yes');
    expect((queue.next().body as { end: number }).end).toBe(1);
  });

  it('is for either thumb, and remembers which', async () => {
    await open();
    press('left-handed');
    expect((fixture.nativeElement as HTMLElement).querySelector('.do')!.classList).toContain('left');
    expect(localStorage.getItem('dial-gauge.thumb')).toBe('left');
    press('right-handed');
  });
});
