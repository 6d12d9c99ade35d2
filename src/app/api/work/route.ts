import { heavy } from "../../../server/heavy";
import { guarded, reply } from "../reply";

export const dynamic = "force-dynamic";
/** How many plans and prints are being made, and how many wait. */
export const GET = (r: Request) => guarded(r, () => reply({ status: 200, body: heavy().state() }));
