import { glance } from "../../../../../server/glance";
import { guarded, reply } from "../../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
/** What the first page says of one project. */
export const GET = (r: Request, p: Params) =>
  guarded(r, async () => reply(await glance((await p.params).id, r.signal)));
