"use client";

/** As much of the browser's serial ports as is used here; not every browser has them. */
export interface Port {
  open(o: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
  writable: WritableStream<Uint8Array> | null;
}
interface Ports {
  requestPort(): Promise<Port>;
}

export const BAUD = 115_200;

export const serialPorts = (): Ports | null =>
  typeof navigator === "undefined" ? null : ((navigator as Navigator & { serial?: Ports }).serial ?? null);

/** What stands in the way of a port, as a sentence. */
export function whyNot(e: unknown): string {
  const name = (e as { name?: string } | null)?.name ?? "";
  if (name === "NotFoundError") return "No port was chosen.";
  if (name === "InvalidStateError") return "This port is open already.";
  if (name === "NetworkError")
    return "The port can't be opened: another program holds it (close its monitor), or the cable only charges.";
  return "The port went away. Plug it in again and connect.";
}

/** Reads a port to its end or until it is stopped; text comes as it arrives. */
export function listen(
  port: Port,
  heard: (text: string) => void,
): { stop(): Promise<void>; ended: Promise<string | null> } {
  const decoder = new TextDecoder();
  let reader: ReadableStreamDefaultReader<Uint8Array> | null = null;
  let stopped = false;
  const ended = (async (): Promise<string | null> => {
    try {
      while (port.readable && !stopped) {
        reader = port.readable.getReader();
        try {
          for (;;) {
            const { value, done } = await reader.read();
            if (done) return null;
            heard(decoder.decode(value, { stream: true }));
          }
        } finally {
          reader.releaseLock();
        }
      }
      return null;
    } catch (e) {
      return stopped ? null : whyNot(e);
    }
  })();
  return {
    ended,
    async stop() {
      stopped = true;
      await reader?.cancel().catch(() => undefined);
      await ended;
      await port.close().catch(() => undefined);
    },
  };
}

/** Types a key at the program. */
export async function type(port: Port, text: string): Promise<void> {
  const writer = port.writable?.getWriter();
  if (!writer) return;
  try {
    await writer.write(new TextEncoder().encode(text));
  } finally {
    writer.releaseLock();
  }
}
