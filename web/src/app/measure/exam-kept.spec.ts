import { TestBed } from '@angular/core/testing';
import type { VisitRecord } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue } from '../testing/fake-queue';
import { storedMeasurement, visitRecord } from '../testing/records';
import { Exam, EXAM } from './exam';

describe('Exam, left and come back to', () => {
  let exam: Exam;
  const where = () => `${exam.record.place().side} ${exam.record.row().motion} ${exam.record.row().mode}`;
  /** The page as it is after a reload. */
  const opened = async (over: Partial<VisitRecord> = {}) => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [EXAM, { provide: CommandQueue, useValue: new FakeQueue() }] });
    exam = TestBed.inject(Exam);
    await exam.commands.open(visitRecord(over));
    TestBed.tick();
  };

  beforeEach(() => {
    localStorage.clear();
    return opened();
  });

  it('keeps a figure that is typed and not held over a reload, at its measurement, until it is held', async () => {
    exam.typed.text.set('110');
    exam.commands.hold();
    exam.typed.text.set('9');
    TestBed.tick();
    const again = () => opened({ measurements: [storedMeasurement({}, 110)] });
    await again();
    expect([where(), exam.typed.text()]).toEqual(['right hip.flexion active', '9']);
    // Gone elsewhere first: it comes back to where it was typed.
    exam.course.otherSide();
    exam.typed.text.set('1');
    TestBed.tick();
    await again();
    expect([where(), exam.typed.text()]).toEqual(['left hip.flexion active', '1']);
    exam.typed.text.set('101');
    exam.commands.hold();
    TestBed.tick();
    await again();
    expect(exam.typed.text()).toBe('');
  });
});
