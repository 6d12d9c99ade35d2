import { revision } from "../../../../../../server/projects";
import { guarded, reply } from "../../../../reply";

type Params = { params: Promise<{ id: string; version: string }> };
export const dynamic = "force-dynamic";
export const GET = (r: Request, p: Params) =>
  guarded(r, async () => {
    const { id, version } = await p.params;
    return reply(revision(id, Number(version)));
  });
