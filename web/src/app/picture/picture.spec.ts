import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import type { Point } from '@dial-gauge/core';
import { CommandQueue } from '../data/command-queue';
import { Lines } from '../live/line';
import { Exam, EXAM } from '../measure/exam';
import { readingWords } from '../measure/reading-words';
import { FakeLines } from '../testing/fake-lines';
import { FakeQueue } from '../testing/fake-queue';
import { SOME_ID, visitRecord } from '../testing/records';
import { until } from '../testing/until';
import { Marking } from './marking';
import { PicturePage } from './picture';
import { Review } from './review';

/** A still of nothing, so large. */
async function still(name: string, width = 400, height = 300): Promise<File> {
  const canvas = Object.assign(document.createElement('canvas'), { width, height });
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  return new File([blob!], name, { type: 'image/png' });
}

describe('angles out of a picture', () => {
  let fixture: ComponentFixture<PicturePage>;
  let queue: FakeQueue;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = () => page().textContent!.replace(/\s+/g, ' ');
  const button = (name: string) => [...page().querySelectorAll('button')].find(({ textContent }) => textContent!.trim() === name)!;
  const select = (label: string) => page().querySelector<HTMLSelectElement>(`select[aria-label="${label}"]`)!;
  const marking = () => fixture.debugElement.injector.get(Marking);
  const settle = async () => {
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const show = async () => {
    fixture = TestBed.createComponent(PicturePage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    const asked = TestBed.inject(HttpTestingController).match(`/api/visits/${SOME_ID}`);
    for (const one of asked) one.flush(visitRecord());
    await settle();
  };
  const open = async (file: File) => {
    const field = page().querySelector<HTMLInputElement>('input[type=file]')!;
    const files = new DataTransfer();
    files.items.add(file);
    field.files = files.files;
    field.dispatchEvent(new Event('change'));
  };
  const opened = async (name = 'squat.png') => {
    await open(await still(name));
    await until(() => (fixture.detectChanges(), page().querySelector('dg-picture-stage svg')));
  };
  const place = (at: Record<string, Point>) => {
    for (const [id, point] of Object.entries(at)) marking().place(id, point);
    fixture.detectChanges();
  };
  const SQUAT: Record<string, Point> = { shoulder: [100, 50], hip: [100, 150], knee: [200, 150], ankle: [200, 250] };

  beforeEach(async () => {
    localStorage.clear();
    queue = new FakeQueue();
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        provideRouter([]),
        { provide: CommandQueue, useValue: queue },
        { provide: Lines, useValue: new FakeLines() },
        EXAM,
      ],
    });
    await show();
  });

  it('asks for one landmark after the other, and says what they come to and how sure that is', async () => {
    await opened();
    expect(text()).toContain('Touch the picture at: shoulder');
    const svg = page().querySelector('dg-picture-stage svg')!;
    const box = svg.getBoundingClientRect();
    svg.dispatchEvent(new PointerEvent('pointerdown', { clientX: box.left + box.width / 4, clientY: box.top + box.height / 6, button: 0 }));
    fixture.detectChanges();
    expect(marking().placing()['shoulder']!.map(Math.round)).toEqual([100, 50]);
    expect(text()).toContain('Touch the picture at: hip');
    place(SQUAT);
    expect(text()).toContain('All placed');
    const rows = [...page().querySelectorAll('table tr')].map((row) => row.textContent!.replace(/\s+/g, ' ').trim());
    expect(rows[0]).toMatch(/knee bend90°at least ± \d+°, view ± 0\.2°, placed once/);
    button('10°').click();
    fixture.detectChanges();
    expect(page().querySelector('table tr')!.textContent).toContain('view ± 0.9°');
  });

  it('is moved by the arrow keys, ten times as far with Shift, and stays in the picture', async () => {
    await opened();
    place(SQUAT);
    const mark = page().querySelectorAll<SVGGElement>('dg-picture-stage .mark')[2]!;
    expect(mark.getAttribute('aria-label')).toContain('knee: lateral epicondyle, at 200, 150');
    const unit = 400 / 900;
    mark.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
    expect(marking().placing()['knee']![0]).toBeCloseTo(200 + unit, 1);
    for (let i = 0; i < 90; i += 1) mark.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', shiftKey: true, bubbles: true }));
    expect(marking().placing()['knee']![1]).toBe(0);
  });

  it('placed again is the mean, with its spread', async () => {
    await opened();
    place(SQUAT);
    button('Place all again').click();
    fixture.detectChanges();
    expect(page().querySelectorAll('dg-picture-stage .mark').length).toBe(0);
    place({ ...SQUAT, ankle: [205, 250] });
    expect(text()).toMatch(/spread 2\.0° of 2 placings/);
  });

  it('keeps its marks over a reload, and not its picture; another file begins anew', async () => {
    await opened();
    place(SQUAT);
    fixture.destroy();
    await show();
    expect(text()).toContain('The marks of squat.png are kept: open the same file again');
    await opened();
    expect(page().querySelectorAll('dg-picture-stage .mark').length).toBe(4);
    await opened('other.png');
    expect(page().querySelectorAll('dg-picture-stage .mark').length).toBe(0);
  });

  it('says what a file is not', async () => {
    await open(new File(['no picture'], 'letter.txt', { type: 'text/plain' }));
    await until(() => (fixture.detectChanges(), page().querySelector('.problem:not([hidden])')));
    expect(text()).toContain('letter.txt is no picture or clip that this browser opens; allowed: JPEG, PNG');
  });

  it('goes to the run sheet as a reading that waits to be held, taken with a picture', async () => {
    await opened();
    place(SQUAT);
    button('On to the dial').click();
    fixture.detectChanges();
    expect(text()).toContain('Choose which angle it is');
    const router = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    select('Which angle').value = 'knee';
    const steps = [...select('As which measurement').options];
    const step = steps.find(({ textContent }) => textContent!.includes('hip flexion, passive'))!;
    select('As which measurement').value = step.value;
    button('On to the dial').click();
    expect(router).toHaveBeenCalled();
    const exam = TestBed.inject(Exam);
    await exam.commands.open(visitRecord());
    expect(exam.sources.value()).toBeNull();
    exam.course.goToKey((router.calls.mostRecent().args[1] as { queryParams: { at: string } }).queryParams.at);
    expect([exam.sources.value(), exam.sources.instrument()]).toEqual([90, 'picture']);
    expect(readingWords(exam)).toContain('view ± 0.2°, placed once');
    exam.commands.hold();
    expect(queue.next().body as object).toEqual(
      jasmine.objectContaining({
        instrument: 'picture',
        mode: 'passive',
        end: 90,
        entered: jasmine.stringMatching(/^picture, at least ± \d+°, view ± 0\.2°, placed once$/),
      }),
    );
    // Held once, it waits no more.
    await exam.commands.open(visitRecord());
    exam.course.goToKey((router.calls.mostRecent().args[1] as { queryParams: { at: string } }).queryParams.at);
    expect(exam.sources.value()).toBeNull();
  });

  it('over the moments of a clip tells its peak', () => {
    const { at } = marking();
    for (const [t, ankle] of [
      [0.2, 400],
      [1, 200],
      [1.8, 320],
    ] as const) {
      at.set(t);
      place({ ...SQUAT, ankle: [ankle, 150 + (ankle === 200 ? 100 : 0)] });
    }
    const [knee] = marking().course();
    expect(knee!.points.map(({ t, degrees }) => [t, Math.round(degrees)])).toEqual([
      [0.2, 0],
      [1, 90],
      [1.8, 0],
    ]);
    expect(knee!.peak).toEqual(jasmine.objectContaining({ t: 1 }));
  });

  it('measures lengths once a known one is placed, and hands a value with its error to an item of a screen', async () => {
    await opened();
    place(SQUAT);
    expect(text()).not.toContain('knee in front of the ankle');
    const length = [...page().querySelectorAll('label')]
      .find((one) => one.textContent!.includes('A known length'))!
      .querySelector('input')!;
    length.value = '2000';
    length.dispatchEvent(new Event('change'));
    await settle();
    expect(text()).toContain('allowed: 0.1 to 1000');
    length.value = '20';
    length.dispatchEvent(new Event('change'));
    button('Place its ends').click();
    await settle();
    expect(text()).toContain('one end of the known length');
    place({ 'scale-from': [50, 280], 'scale-to': [150, 280] });
    place({ knee: [260, 150] });
    await settle();
    // By hand: 100 pixels are 20 cm, and the knee stands 60 of them in front of the ankle.
    expect(text()).toContain('12.0 cm');
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const choose = (label: string, words: string) => {
      const list = select(label);
      list.value = [...list.options].find((option) => option.textContent!.includes(words))!.value;
      list.dispatchEvent(new Event('change'));
    };
    choose('As which item of a screen', 'Hips back, back still');
    await settle();
    button('On to the screen').click();
    await settle();
    expect(text()).toContain('Choose which value it is.');
    choose('Which value goes to it', 'knee in front of the ankle');
    button('On to the screen').click();
    await settle();
    expect(text()).toContain('That item is told in degrees');
    choose('Which value goes to it', 'knee bend');
    button('On to the screen').click();
    expect(navigate.calls.mostRecent().args[1]!.queryParams).toEqual({ screen: 'squatCheck', item: 'rockBack', side: 'midline' });
    const kept = Object.entries(localStorage).find(([key]) => key.includes(`screen.${SOME_ID}.squatCheck/rockBack//.midline`))!;
    const { picture, value } = (JSON.parse(kept[1] as string) as { value: { picture: { words: string; error: number }; value: string } })
      .value;
    expect(picture.words).toBe('squat.png');
    expect(picture.error).toBeGreaterThan(0);
    expect(Number(value)).toBeGreaterThan(60);
  });

  it('shows the lines of a mark that was made elsewhere, at its moment, until landmarks are placed here', async () => {
    const review = fixture.debugElement.injector.get(Review);
    await opened();
    const mark = { t: 0, tells: 'work', side: 'midline', shows: null, words: 'as seen', sure: 'sure', angles: [], still: null } as const;
    review.put({
      ...mark,
      id: SOME_ID,
      lines: [
        [
          [0.25, 0.5],
          [0.5, 1],
        ],
      ],
    });
    review.put({
      ...mark,
      id: crypto.randomUUID(),
      t: 2,
      lines: [
        [
          [0, 0],
          [1, 1],
        ],
      ],
    });
    await settle();
    const drawn = () =>
      [...page().querySelectorAll('dg-picture-stage .before')].map((line) =>
        ['x1', 'y1', 'x2', 'y2'].map((at) => Number(line.getAttribute(at))),
      );
    expect(drawn()).toEqual([[100, 150, 200, 300]]);
    place(SQUAT);
    await settle();
    expect(drawn()).toEqual([]);
  });

  it('draws the lines on a still that is attached', async () => {
    await opened();
    place(SQUAT);
    const shown = (fixture.componentInstance as unknown as { snap: () => string | null }).snap();
    const image = await createImageBitmap(new Blob([Uint8Array.from(atob(shown!), (letter) => letter.charCodeAt(0))]));
    const canvas = Object.assign(document.createElement('canvas'), { width: image.width, height: image.height });
    const context = canvas.getContext('2d')!;
    context.drawImage(image, 0, 0);
    // In the middle of the thigh; the still itself is empty.
    const [red, green, blue] = context.getImageData(150, 150, 1, 1).data;
    expect([red! < 90, green! > red!, blue! > red!]).toEqual([true, true, true]);
  });
});
