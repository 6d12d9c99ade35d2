import type { Reply, WirePart } from "./types";

/** The lines of one part as time goes on: what it does later is kept until then. For programs whose time is asked, not simulated. */
export class Lines {
  readonly levels = new Map<string, number>();
  private readonly driven = new Map<string, 0 | 1>();
  /** When lines fell, since it was last asked. */
  private readonly fell = new Map<string, number[]>();
  private queue: { at: number; reply: Reply }[] = [];

  constructor(private readonly part: WirePart) {
    for (const l of part.pulledUp ?? []) this.levels.set(l, 1);
    this.add(part.start(), 0);
  }

  private add(replies: readonly Reply[], us: number) {
    for (const reply of replies) {
      const at = us + ("look_us" in reply ? reply.look_us : ((reply as { in_us?: number }).in_us ?? 0));
      this.queue.push({ at, reply });
    }
    this.queue.sort((a, b) => a.at - b.at);
  }

  private until(us: number) {
    while (this.queue.length && this.queue[0]!.at <= us) {
      const { at, reply } = this.queue.shift()!;
      if ("look_us" in reply)
        this.add(this.part.look?.(reply.line, (this.levels.get(reply.line) ?? 0) as 0 | 1, at) ?? [], at);
      else {
        if ("level" in reply && reply.level === 0 && this.levels.get(reply.line) === 1)
          this.fell.set(reply.line, [...(this.fell.get(reply.line) ?? []), at]);
        this.levels.set(reply.line, "mV" in reply ? reply.mV : reply.level);
      }
    }
  }

  /** The program drives a line, or lets it go (null). */
  drive(line: string, level: 0 | 1 | null, us: number) {
    this.until(us);
    if (!this.part.hears.includes(line)) return;
    const is = level ?? (this.part.pulledUp?.includes(line) ? 1 : null);
    if (is === null || this.driven.get(line) === is) return;
    this.driven.set(line, is);
    this.add(this.part.change(line, is, us), us);
    this.until(us);
  }

  pulsed(line: string, Hz: number, duty: number, us: number) {
    this.until(us);
    this.part.pulsed?.(line, Hz, duty, us);
  }

  falls(line: string, us: number): readonly number[] {
    this.until(us);
    const list = this.fell.get(line) ?? [];
    this.fell.delete(line);
    return list;
  }

  level(line: string, us: number): number {
    this.until(us);
    return this.levels.get(line) ?? 0;
  }
}
