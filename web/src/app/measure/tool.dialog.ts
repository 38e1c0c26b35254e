import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { MatRadioModule } from '@angular/material/radio';
import { motion, sitesInOrder, type DeviceScale, type Instrument, type Protocol } from '@dial-gauge/core';
import { INSTRUMENT_WORDS } from '../ui/words';
import { Tools } from './record/tools';

const SCALES: readonly { readonly scale: DeviceScale | null; readonly words: string }[] = [
  { scale: null, words: 'set to zero at the start: shows the change' },
  { scale: '360', words: 'not set: counts 0–360' },
  { scale: '180', words: 'not set: counts −180 to 180' },
  { scale: 'quadrant', words: 'not set: counts 0–90 in every quarter (30+ after one corner)' },
];

/** What is in the hand, and how it counts; remembered on this device. */
@Component({
  selector: 'dg-tool',
  imports: [MatButtonModule, MatDialogModule, MatRadioModule],
  template: `
    <h2 mat-dialog-title>Instrument</h2>
    <mat-dialog-content>
      <fieldset>
        <legend>In the hand</legend>
        <mat-radio-group [value]="tool().instrument" (change)="take($event.value)">
          @for (instrument of choices; track instrument) {
            <mat-radio-button [value]="instrument">{{ words(instrument) }}</mat-radio-button>
          }
        </mat-radio-group>
      </fieldset>
      @if (gravity()) {
        <fieldset>
          <legend>The inclinometer is</legend>
          <mat-radio-group [value]="tools.settings().scale" (change)="tools.change({ scale: $event.value })">
            @for (choice of scales; track choice.scale) {
              <mat-radio-button [value]="choice.scale">{{ choice.words }}</mat-radio-button>
            }
          </mat-radio-group>
        </fieldset>
      }
      @if (tool().instrument === 'dualInclinometer') {
        <fieldset>
          <legend>Two sites with</legend>
          <mat-radio-group [value]="tools.settings().hands" (change)="tools.change({ hands: $event.value })">
            <mat-radio-button value="two">two devices at once</mat-radio-button>
            <mat-radio-button value="one">one device, moved between two repeats</mat-radio-button>
          </mat-radio-group>
          <p class="soft">Typed in the order of the hands: {{ order() }}. Enter after a figure goes to the next.</p>
        </fieldset>
      }
      @if (unit === 'cm') {
        <fieldset>
          <legend>Lengths in</legend>
          <mat-radio-group [value]="tools.settings().length" (change)="tools.change({ length: $event.value })">
            <mat-radio-button value="cm">centimetres</mat-radio-button>
            <mat-radio-button value="in">inches</mat-radio-button>
          </mat-radio-group>
          <p class="soft">
            By eye and hand: 1f2 is one fist and two fingers ({{ tools.hand().fist }} and {{ tools.hand().finger }} cm, calibrated under
            Norms and thresholds).
          </p>
        </fieldset>
      }
      @if (unit === 'N') {
        <fieldset>
          <legend>Force in</legend>
          <mat-radio-group [value]="tools.settings().force" (change)="tools.change({ force: $event.value })">
            <mat-radio-button value="N">newtons</mat-radio-button>
            <mat-radio-button value="lb">pounds</mat-radio-button>
            <mat-radio-button value="kg">kilograms</mat-radio-button>
          </mat-radio-group>
        </fieldset>
      }
      <p class="soft">A unit may be typed behind the figure at any time: 32lb, 12in. Readings keep what was entered.</p>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button matButton="filled" mat-dialog-close>Back to the dial</button></mat-dialog-actions>
  `,
  styles: `
    fieldset {
      margin: 0 0 8px;
      padding: 0;
      border: 0;
    }
    legend {
      padding: 0;
      font-weight: 700;
    }
    mat-radio-group {
      display: grid;
    }
    .soft {
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ToolDialog {
  protected readonly tools = inject(Tools);
  private readonly protocol = inject<Protocol>(MAT_DIALOG_DATA);
  protected readonly scales = SCALES;
  protected readonly choices = this.tools.choices(this.protocol);
  protected readonly unit = motion(this.protocol.motion).unit;
  protected readonly tool = () => this.tools.toolFor(this.protocol);
  protected readonly gravity = () => ['inclinometer', 'dualInclinometer'].includes(this.tool().instrument);
  protected readonly order = () => sitesInOrder(this.tool()).join(', ');
  protected readonly words = (instrument: Instrument) =>
    instrument === 'visual' && this.unit === 'cm' ? 'fists and fingers, by eye' : INSTRUMENT_WORDS[instrument];

  protected take(instrument: Instrument): void {
    this.tools.take(this.protocol, instrument);
  }
}
