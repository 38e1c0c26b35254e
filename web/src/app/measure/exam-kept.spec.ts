import { TestBed } from '@angular/core/testing';
import type { VisitRecord } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue } from '../testing/fake-queue';
import { storedMeasurement, visitRecord } from '../testing/records';
import { Exam } from './exam';

describe('Exam, left and come back to', () => {
  let exam: Exam;
  const where = () => `${exam.place().side} ${exam.row().motion} ${exam.row().mode}`;
  /** The page as it is after a reload. */
  const opened = async (over: Partial<VisitRecord> = {}) => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [Exam, { provide: CommandQueue, useValue: new FakeQueue() }] });
    exam = TestBed.inject(Exam);
    await exam.open(visitRecord(over));
    TestBed.tick();
  };

  beforeEach(() => {
    localStorage.clear();
    return opened();
  });

  it('keeps a figure that is typed and not held over a reload, at its measurement, until it is held', async () => {
    exam.typed.set('110');
    exam.hold();
    exam.typed.set('9');
    TestBed.tick();
    const again = () => opened({ measurements: [storedMeasurement({}, 110)] });
    await again();
    expect([where(), exam.typed()]).toEqual(['right hip.flexion active', '9']);
    // Gone elsewhere first: it comes back to where it was typed.
    exam.otherSide();
    exam.typed.set('1');
    TestBed.tick();
    await again();
    expect([where(), exam.typed()]).toEqual(['left hip.flexion active', '1']);
    exam.typed.set('101');
    exam.hold();
    TestBed.tick();
    await again();
    expect(exam.typed()).toBe('');
  });
});
