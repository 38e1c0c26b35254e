import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { SOME_ID as ID, storedMeasurement as measured, visitRecord as record } from '../testing/records';
import { dialModel } from './dial-model';
import { Exam } from './exam';

describe('Exam', () => {
  let exam: Exam;
  let http: HttpTestingController;
  const where = () => `${exam.place().side} ${exam.row().motion} ${exam.row().mode}`;
  const hold = (text: string) => (exam.typed.set(text), exam.hold());
  const answer = () => {
    const request = http.expectOne((r) => r.url.endsWith('/readings'));
    const { id, start, end, heldAt, instrument } = request.request.body;
    request.flush({ reading: { id, start, end, lower: null, heldAt, instrument, examiner: 'Wren' }, repeated: false });
    return request.request;
  };

  beforeEach(() => {
    localStorage.removeItem('dial-gauge.trials');
    TestBed.configureTestingModule({ providers: [Exam, provideHttpClient(), provideHttpClientTesting()] });
    exam = TestBed.inject(Exam);
    http = TestBed.inject(HttpTestingController);
    exam.open(record());
  });

  it('starts at the side that is not involved and moves on with every hold', () => {
    expect(where()).toBe('left hip.flexion active');
    hold('110');
    expect(where()).toBe('right hip.flexion active');
    hold('95');
    expect(where()).toBe('left hip.flexion passive');
  });

  it('opens an unfinished visit where it was left', () => {
    exam.open(record({ measurements: [measured({}, 110), measured({ side: 'right' }, 95)] }));
    expect(where()).toBe('left hip.flexion passive');
    expect(exam.savedCount()).toBe(2);
  });

  it('counts a reading as saved only when the server has said so', () => {
    hold('110');
    expect(exam.savedCount()).toBe(0);
    const request = answer();
    expect(request.url).toBe(`/api/visits/${ID}/readings`);
    expect(request.body).toEqual(
      jasmine.objectContaining({ motion: 'hip.flexion', side: 'left', mode: 'active', position: 'supine', start: 0, end: 110 }),
    );
    expect(exam.savedCount()).toBe(1);
  });

  it('waits for as many readings as are wanted', () => {
    exam.setTrials(3);
    hold('110');
    hold('112');
    expect(where()).toBe('left hip.flexion active');
    hold('114');
    expect(where()).toBe('right hip.flexion active');
    exam.otherSide();
    expect(exam.measured()!.value).toBe(112);
    expect(exam.measured()!.consistent).toBeTrue();
    http.match(() => true);
  });

  it('keeps what cannot be on the screen and sends nothing', () => {
    expect(hold('400')).toBeFalse();
    expect(exam.typed()).toBe('400');
    expect(exam.problem()).toContain('allowed: −60 to 170°');
    http.expectNone(() => true);
  });

  it('brings a refused reading back where it was typed', () => {
    hold('110');
    http
      .expectOne((r) => r.url.endsWith('/readings'))
      .flush({ detail: 'no', errors: [{ path: 'end', message: 'not today' }] }, { status: 422, statusText: 'x' });
    expect(where()).toBe('left hip.flexion active');
    expect(exam.typed()).toBe('110');
    expect(exam.problem()).toBe('left hip flexion, active, 110 was not saved. end: not today');
    expect(exam.cell().readings).toEqual([]);
  });

  it('leaves what is being typed alone when an earlier reading is refused', () => {
    hold('110');
    exam.typed.set('9');
    http.expectOne((r) => r.url.endsWith('/readings')).flush({ detail: 'no' }, { status: 422, statusText: 'x' });
    expect(exam.typed()).toBe('9');
    expect(where()).toBe('right hip.flexion active');
    expect(exam.problem()).toContain('110 was not saved');
  });

  it('undoes the reading held last and withdraws it on the server', () => {
    hold('110');
    const { body } = answer();
    exam.undo();
    expect(where()).toBe('left hip.flexion active');
    expect(exam.cell().readings).toEqual([]);
    http.expectOne(`/api/readings/${body.id}/withdrawal`).flush({});
    expect(exam.canUndo()).toBeFalse();
    exam.undo();
    http.expectNone(() => true);
  });

  it('sends a waiting reading to the visit it was held in, whatever is on the screen by then', () => {
    hold('110');
    hold('95');
    const other = record({ visit: { ...record().visit, id: '0d444840-9dc0-41d1-b245-5ffdce74fad3' } });
    exam.open(other);
    expect(answer().url).toBe(`/api/visits/${ID}/readings`);
    expect(answer().url).toBe(`/api/visits/${ID}/readings`);
    expect(exam.savedCount()).toBe(0);
    expect(where()).toBe('left hip.flexion active');
  });

  it('takes a remark back when the server refuses it', () => {
    exam.note({ pain: 4 });
    expect(exam.cell().pain).toBe(4);
    http.expectOne((r) => r.method === 'PUT').flush({ detail: 'no' }, { status: 422, statusText: 'x' });
    expect(exam.cell().pain).toBeNull();
  });

  it('gives the dial the other side, the other mode, the last visit and the gap', () => {
    exam.open(
      record({
        measurements: [measured({}, 100), measured({ side: 'right' }, 95), measured({ mode: 'passive' }, 118)],
        previous: { assessedOn: '2026-10-20', measurements: [measured({}, 88, 92)] },
      }),
    );
    exam.go(0, 'left');
    const dial = dialModel(exam)!;
    expect(dial).toEqual(
      jasmine.objectContaining({
        needle: 100,
        active: 100,
        passive: 118,
        otherSide: { at: 95, words: 'right 95' },
        lastVisit: { at: 90, words: '20 Oct: 90' },
      }),
    );
    expect(dial.gap!.words).toBe('9° short');
    expect(dial.text).toContain('left hip flexion, active; needle at 100°');
    exam.typed.set('130');
    expect(dialModel(exam)!.needle).toBe(130);
    expect(dialModel(exam)!.gap).toBeNull();
  });

  describe('beyond the hip', () => {
    const openWith = (...sheet: { protocol: string; digit?: 2 }[]) => exam.open(record({ sheet }));
    const body = () => {
      const request = http.expectOne((r) => r.url.endsWith('/readings'));
      return request.request.body as Record<string, unknown>;
    };

    it('holds a length in one figure, and refuses a start', () => {
      openWith({ protocol: 'distance.kneeToWall/standing' });
      expect(exam.instrument()).toBe('tape');
      expect(hold('4/9')).toBeFalse();
      expect(exam.problem()).toContain('allowed: one figure in cm');
      expect(hold('45')).toBeFalse();
      expect(exam.problem()).toBe('45 cm is more than knee to wall can hold; allowed: 0 to 30 cm');
      expect(hold('7.5')).toBeTrue();
      expect(body()).toEqual(jasmine.objectContaining({ motion: 'distance.kneeToWall', side: 'left', instrument: 'tape', end: 7.5 }));
    });

    // Common practice, no source: 104 − 49 = 55
    it('holds two sites as typed and subtracts them', () => {
      openWith({ protocol: 'lumbar.flexion/standing' });
      expect(hold('104')).toBeFalse();
      expect(exam.problem()).toContain('upper/lower, as 104/49');
      exam.typed.set('104/49');
      expect(exam.typedValue()).toBe(55);
      exam.hold();
      expect(body()).toEqual(
        jasmine.objectContaining({ side: 'midline', instrument: 'dualInclinometer', start: 0, end: 104, lower: { zero: 0, end: 49 } }),
      );
      expect(exam.measuredAt(exam.key())!.value).toBe(55);
    });

    it('names the finger and the way of measuring it holds for', () => {
      openWith({ protocol: 'fingerPip.flexion/sitting', digit: 2 }, { protocol: 'shoulder.externalRotation/supine-at-side' });
      hold('90');
      expect(body()).toEqual(jasmine.objectContaining({ digit: 2, protocol: 'fingerPip.flexion/sitting' }));
      expect(exam.nameOf(exam.row(), 'left')).toBe('left index, finger middle joint (PIP) flexion, active');
    });

    it('puts another way of measuring on the sheet once, tells the server, and goes there', () => {
      openWith({ protocol: 'knee.flexion/supine' });
      exam.add({ protocol: 'girth.knee/supine' });
      expect(exam.row().motion).toBe('girth.knee');
      const { items } = http.expectOne(`/api/visits/${ID}/sheet`).request.body as { items: unknown[] };
      expect(items).toEqual([{ protocol: 'knee.flexion/supine' }, { protocol: 'girth.knee/supine' }]);
      exam.add({ protocol: 'knee.flexion/supine' });
      http.expectNone(`/api/visits/${ID}/sheet`);
      expect(exam.row().motion).toBe('knee.flexion');
    });

    it('shows what was measured beyond the sheet', () => {
      const beyond = measured({ motion: 'knee.flexion', position: 'prone' }, 130);
      exam.open(record({ sheet: [{ protocol: 'knee.flexion/supine' }], measurements: [beyond] }));
      expect(exam.rows().map((row) => row.protocol)).toContain('knee.flexion/prone');
    });
  });
});
