import { details } from "../../../../server/parts";
import { guarded, reply } from "../../reply";

export const dynamic = "force-dynamic";
export const GET = (r: Request) =>
  guarded(r, () => {
    const ask = new URL(r.url).searchParams;
    return reply({ status: 200, body: details({ ids: ask.get("ids"), boards: ask.get("boards") === "1" }) });
  });
