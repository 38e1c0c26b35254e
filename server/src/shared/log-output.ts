import { writeSync } from 'node:fs';

const STDOUT = 1;
/** So much waits where whoever reads the log is slow; what comes then is dropped. */
const MOST_WAITING = 1_000_000;
const TRY_AGAIN_MS = 20;

/**
 * Where log lines go: standard output. A log that cannot be written, because
 * the disk is full or its reader is gone, is no reason to end: lines are
 * dropped, and how many is written as soon as something can be written again.
 */
export class LogOutput {
  private waiting: string[] = [];
  private size = 0;
  private dropped = 0;
  private timer: NodeJS.Timeout | undefined;

  constructor(private readonly put: (text: string) => void = (text) => void writeSync(STDOUT, text)) {}

  write(line: string): void {
    if (this.size + line.length > MOST_WAITING) {
      this.dropped += 1;
      return;
    }
    this.waiting.push(line);
    this.size += line.length;
    if (!this.timer) this.flush();
  }

  private flush(): void {
    this.timer = undefined;
    try {
      if (this.dropped > 0) {
        this.put(`${JSON.stringify({ level: 40, time: Date.now(), msg: `${this.dropped} lines of the log were dropped` })}\n`);
        this.dropped = 0;
      }
      while (this.waiting.length > 0) {
        this.put(this.waiting[0]!);
        this.size -= this.waiting.shift()!.length;
      }
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'EAGAIN') {
        this.timer = setTimeout(() => this.flush(), TRY_AGAIN_MS);
        this.timer.unref();
        return;
      }
      this.dropped += this.waiting.length;
      this.waiting = [];
      this.size = 0;
    }
  }
}
