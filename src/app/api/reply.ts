import { NextResponse } from "next/server";
import { MAX_PROJECT_BYTES } from "../../core/project";
import { dataFile } from "../../db/database";
import { DataTrouble, inUse } from "../../db/trouble";
import { locked, refusal } from "../../server/guard";
import { Busy, Stopped } from "../../server/heavy";
import { dataFolder } from "../../server/store";

type Handler = (request: Request) => Promise<NextResponse> | NextResponse;

/** A request that is answered with a sentence before anything is done. */
class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/**
 * Runs a handler only for requests that may be served; a bug answers with a plain sentence, not a stack. `as`: the method whose
 * right it takes, where reading all at once takes the right to write.
 */
export async function guarded(request: Request, handle: Handler, as = request.method): Promise<NextResponse> {
  const no = refusal(request.headers, as);
  if (no) return NextResponse.json({ message: no }, { status: 403 });
  if (locked(request.headers))
    return NextResponse.json(
      { message: "This copy is locked. Open its first page and give the passphrase." },
      { status: 401 },
    );
  try {
    return await handle(request);
  } catch (e) {
    const told = inUse(e, dataFile(dataFolder()));
    if (told instanceof DataTrouble) return NextResponse.json({ message: told.message }, { status: told.status });
    if (e instanceof Busy)
      return NextResponse.json({ message: e.message }, { status: 503, headers: { "retry-after": "30" } });
    // Whoever asked has gone, or it took too long.
    if (e instanceof Stopped) return NextResponse.json({ message: e.message }, { status: 503 });
    if (e instanceof Refused) return NextResponse.json({ message: e.message }, { status: e.status });
    console.error(e);
    return NextResponse.json({ message: "Something failed on this machine; nothing was changed." }, { status: 500 });
  }
}

export const reply = (o: { status: number; body: unknown }) => NextResponse.json(o.body, { status: o.status });

/** Throws where a body is said to be something else than what is wanted: a form of another page can only send such. */
export function wantType(request: Request, type: string): void {
  const given = (request.headers.get("content-type") ?? "").split(";")[0]!.trim().toLowerCase();
  if (given !== type) throw new Refused(415, `The body must be ${type}; it is said to be ${given || "nothing"}.`);
}

/** The JSON body, limited in size; undefined when it is no JSON. */
export async function jsonBody(request: Request): Promise<unknown> {
  wantType(request, "application/json");
  if (Number(request.headers.get("content-length") ?? 0) > MAX_PROJECT_BYTES * 2) return undefined;
  const text = await request.text();
  if (text.length > MAX_PROJECT_BYTES * 2) return undefined;
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
