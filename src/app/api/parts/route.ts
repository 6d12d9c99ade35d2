import { summaries } from "../../../server/parts";
import { guarded, reply } from "../reply";

export const dynamic = "force-dynamic";
export const GET = (r: Request) => guarded(r, () => reply({ status: 200, body: summaries() }));
