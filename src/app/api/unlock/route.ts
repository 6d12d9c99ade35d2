import { NextResponse } from "next/server";
import { openCookie, refusal } from "../../../server/guard";
import { isLocked, unlock } from "../../../server/holders";
import { jsonBody } from "../reply";

export const dynamic = "force-dynamic";

/** The passphrase of a shared computer; after wrong ones it has to be waited for, longer each time. */
export async function POST(r: Request): Promise<NextResponse> {
  const no = refusal(r.headers);
  if (no) return NextResponse.json({ message: no }, { status: 403 });
  if (!isLocked()) return NextResponse.json({ message: "This copy wants no passphrase." }, { status: 404 });
  const body = (await jsonBody(r).catch(() => undefined)) as { passphrase?: unknown } | undefined;
  if (typeof body?.passphrase !== "string")
    return NextResponse.json({ message: "A passphrase is wanted." }, { status: 400 });
  const answer = unlock(body.passphrase);
  if ("wait_ms" in answer) {
    const s = Math.ceil(answer.wait_ms / 1000);
    return NextResponse.json(
      { message: `That is not the passphrase. The next try counts in ${s} s.` },
      { status: 401, headers: { "retry-after": String(s) } },
    );
  }
  const done = NextResponse.json({ open: true });
  done.cookies.set(openCookie(r.headers), answer.cookie, { httpOnly: true, sameSite: "strict", path: "/" });
  return done;
}
