import { prove, type Answer } from "../prove";

/** The largest model that is taken, characters: many times the largest real one. */
const MOST_CHARS = 4_000_000;
/** So many models are worked on at once; further ones are told to do without. */
const MOST_AT_ONCE = 2;
let busy = 0;

/** Works a model in LP format out; what is no model, too large or one too many gets a plain sentence. */
export async function proveText(request: Request): Promise<{ status: number; body: Answer | { message: string } }> {
  if (Number(request.headers.get("content-length") ?? 0) > MOST_CHARS)
    return { status: 413, body: { message: "This model is too large to be worked out here." } };
  const lp = await request.text();
  if (lp.length > MOST_CHARS)
    return { status: 413, body: { message: "This model is too large to be worked out here." } };
  if (!/^\\[^\n]*\nMinimize\n/.test(lp))
    return { status: 400, body: { message: "A model of pins in LP format is wanted here." } };
  if (busy >= MOST_AT_ONCE) return { status: 200, body: { says: "unknown" } };
  busy++;
  try {
    return { status: 200, body: await prove(lp, request.signal) };
  } finally {
    busy--;
  }
}
