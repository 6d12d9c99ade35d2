import { create, list } from "../../../server/projects";
import { guarded, jsonBody, reply } from "../reply";

export const dynamic = "force-dynamic";
export const GET = (r: Request) => guarded(r, () => reply({ status: 200, body: list() }));
export const POST = (r: Request) => guarded(r, async () => reply(create(await jsonBody(r))));
