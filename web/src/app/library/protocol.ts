import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatIconModule } from '@angular/material/icon';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { Title } from '@angular/platform-browser';
import { RouterLink } from '@angular/router';
import { motion, protocolName, regionName, SEXES, type Sex } from '@dial-gauge/core';
import { ClinicNorms } from '../data/clinic-norms';
import { Frame } from '../shell/frame';
import { protocolAt, protocolPath } from './address';
import { ProtocolCard, type Person } from './protocol-card';

const OLDEST = 120;

/** The page of one way of measuring, for a person of any age and sex. */
@Component({
  selector: 'dg-protocol',
  imports: [
    FormsModule,
    Frame,
    MatButtonModule,
    MatFormFieldModule,
    MatIconModule,
    MatInputModule,
    MatSelectModule,
    ProtocolCard,
    RouterLink,
  ],
  templateUrl: './protocol.html',
  styleUrl: './protocol.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProtocolPage {
  private readonly judging = inject(ClinicNorms);
  private readonly title = inject(Title);
  readonly region = input.required<string>();
  readonly motionName = input.required<string>();
  readonly way = input.required<string>();

  protected readonly sexes = SEXES;
  protected readonly sex = signal<Sex>('female');
  protected readonly age = signal<number | null>(40);
  protected readonly protocol = computed(() => protocolAt(this.region(), this.motionName(), this.way()));
  protected readonly heading = computed(() => {
    const protocol = this.protocol();
    return protocol ? protocolName(protocol) : 'Not in the library';
  });
  protected readonly regionName = computed(() => {
    const protocol = this.protocol();
    return protocol ? regionName(motion(protocol.motion).joint) : '';
  });
  /** Other ways of measuring the same motion. */
  protected readonly others = computed(() => {
    const protocol = this.protocol();
    return protocol ? motion(protocol.motion).protocols.filter((p) => p !== protocol) : [];
  });
  protected readonly path = protocolPath;
  protected readonly ageProblem = computed(() => {
    const age = this.age();
    return age === null || !Number.isInteger(age) || age < 0 || age > OLDEST ? `Age: whole years, 0 to ${OLDEST}.` : '';
  });
  private lastAge = 40;
  protected readonly person = computed((): Person => {
    // A half-typed age leaves the norms as they stand.
    if (!this.ageProblem()) this.lastAge = this.age() ?? this.lastAge;
    return { sex: this.sex(), age: this.lastAge };
  });

  constructor() {
    if (!this.judging.current()) this.judging.load().subscribe({ error: () => undefined });
    effect(() => this.title.setTitle(`${this.heading()} · Dial Gauge`));
  }

  protected print(): void {
    window.print();
  }
}
