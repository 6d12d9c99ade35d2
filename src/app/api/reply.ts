import { NextResponse } from "next/server";
import { MAX_PROJECT_BYTES } from "../../core/project";
import { refusal } from "../../server/guard";

type Handler = (request: Request) => Promise<NextResponse> | NextResponse;

/** Runs a handler only for requests that may be served; a bug answers with a plain sentence, not a stack. */
export async function guarded(request: Request, handle: Handler): Promise<NextResponse> {
  const no = refusal(request.headers, request.method);
  if (no) return NextResponse.json({ message: no }, { status: 403 });
  try {
    return await handle(request);
  } catch (e) {
    console.error(e);
    return NextResponse.json({ message: "Something failed on this machine; nothing was changed." }, { status: 500 });
  }
}

export const reply = (o: { status: number; body: unknown }) => NextResponse.json(o.body, { status: o.status });

/** The JSON body, limited in size; undefined when it is no JSON. */
export async function jsonBody(request: Request): Promise<unknown> {
  if (Number(request.headers.get("content-length") ?? 0) > MAX_PROJECT_BYTES * 2) return undefined;
  const text = await request.text();
  if (text.length > MAX_PROJECT_BYTES * 2) return undefined;
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
