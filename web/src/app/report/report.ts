import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import { PAPER_SIZES, REPORTS, type FileView, type ReportFormat, type ReportView } from '@dial-gauge/contract';
import { dayWords, REPORT_KINDS, type ReportKind } from '@dial-gauge/core';
import type { Observable } from 'rxjs';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { CommandQueue } from '../data/command-queue';
import { Drafts, isText } from '../data/drafts';
import { toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { handOverFile } from '../ui/hand-over';
import { OwnLink } from './own-link';
import { Sheet } from './sheet';
import { IfMay } from '../ui/may.directive';

type Paper = (typeof PAPER_SIZES)[number];

const FOR: Readonly<Record<ReportKind, readonly [name: string, what: string]>> = {
  referrer: ['the referrer', 'one page: who, why, what was found, what changed, the plan'],
  patient: ['the patient', 'large print, plain words: what is better, what to do, when to stop'],
  evidence: ['all evidence', 'every reading and finding with its error, source and arithmetic'],
};

const FILES: readonly (readonly [ReportFormat, string, string])[] = [
  ['ics', 'Calendar', 'the recheck and the days of the drills; no name in it'],
  ['fhir', 'FHIR R4', 'for other record systems'],
  ['csv', 'CSV', 'for a spreadsheet, and back'],
  ['json', 'JSON', 'the assessment file, and back'],
  ['sftr', 'SFTR', 'arcs, one a line'],
];

/** What goes out: pages for others as they will print, and files. Only what is signed goes out as signed. */
@Component({
  selector: 'dg-report',
  imports: [Frame, MatButtonModule, MatIconModule, OwnLink, Pending, RouterLink, Sheet, IfMay],
  templateUrl: './report.html',
  styleUrl: './report.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReportPage {
  private readonly api = inject(Api);
  private readonly drafts = inject(Drafts);
  protected readonly queue = inject(CommandQueue);
  readonly id = input.required<string>();
  protected readonly kinds = REPORT_KINDS.map((id) => ({ id, name: FOR[id][0], what: FOR[id][1] }));
  protected readonly papers = PAPER_SIZES.map((id) => ({ id, name: id === 'a4' ? 'A4' : 'Letter' }));
  protected readonly files = FILES.map(([to, name, what]) => ({ to, name, what }));
  protected readonly words = { dayWords, episodeWords, fullName, personWords };

  /** What was chosen here last is chosen again. */
  protected readonly kind = linkedSignal(() => asOneOf(REPORT_KINDS, this.drafts.read(`report-for.${this.id()}`, isText)));
  protected readonly paper = signal<Paper>(asOneOf(PAPER_SIZES, this.drafts.read('report-paper', isText)));
  protected readonly loaded = rxResource({
    params: () => ({ id: this.id(), kind: this.kind(), paper: this.paper() }),
    stream: ({ params: { id, kind, paper } }) =>
      this.api.call(REPORTS.report, { id, query: { for: kind, paper, locale: navigator.language } }),
  });
  /** The page that was there stays until the next one is. */
  protected readonly view = linkedSignal<ReportView | undefined, ReportView | undefined>({
    source: () => (this.loaded.hasValue() ? this.loaded.value() : undefined),
    computation: (source, previous) => source ?? previous?.value,
  });
  protected readonly failure = computed(() => (this.loaded.error() ? toFailure(this.loaded.error()).message : ''));
  protected readonly signature = computed(() => {
    const view = this.view();
    return view?.visit.signed ? view.signing.signatures.at(-1) : undefined;
  });
  protected readonly busy = signal('');
  protected readonly done = signal('');
  protected readonly problem = signal('');

  protected show(kind: ReportKind): void {
    this.kind.set(kind);
    this.drafts.keep(`report-for.${this.id()}`, kind);
  }

  protected setPaper(paper: Paper): void {
    this.paper.set(paper);
    this.drafts.keep('report-paper', paper);
  }

  protected makePdf(): void {
    const query = { for: this.kind(), paper: this.paper(), locale: navigator.language };
    this.take('PDF', this.api.call(REPORTS.reportFile, { id: this.id(), query }));
  }

  protected export(to: ReportFormat, name: string): void {
    this.take(name, this.api.call(REPORTS.exportVisit, { id: this.id(), query: { to } }));
  }

  protected print(): void {
    window.print();
  }

  private take(name: string, asked: Observable<FileView>): void {
    this.done.set('');
    this.problem.set('');
    this.busy.set(name);
    asked.subscribe({
      next: (file) => {
        handOverFile(file);
        this.done.set(`${file.fileName} was written.`);
      },
      error: (error: unknown) => {
        this.problem.set(toFailure(error).message);
        this.busy.set('');
      },
      complete: () => this.busy.set(''),
    });
  }
}

function asOneOf<const T extends string>(all: readonly T[], kept: string | null | undefined): T {
  return all.find((one) => one === kept) ?? all[0]!;
}
