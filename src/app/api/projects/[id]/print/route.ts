import { NextResponse } from "next/server";
import { printFile } from "../../../../../server/downloads";
import { guarded } from "../../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
/** One print as PDF: `?what=plan|learner|answers|underlay|panel|plugboard|labels`, `&paper=a4|letter`. */
export const GET = (r: Request, p: Params) =>
  guarded(r, async () => {
    const query = new URL(r.url).searchParams;
    const result = await printFile((await p.params).id, query.get("what"), query.get("paper"), r.signal);
    if (!result.ok) return NextResponse.json({ message: result.message }, { status: result.status });
    return new NextResponse(result.data as Uint8Array<ArrayBuffer>, {
      headers: { "content-type": "application/pdf", "content-disposition": `attachment; filename="${result.name}"` },
    });
  });
