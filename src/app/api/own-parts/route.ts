import { ownParts, removeOwnPart, saveOwnPart } from "../../../server/parts";
import { guarded, jsonBody, reply } from "../reply";

export const dynamic = "force-dynamic";
export const GET = (r: Request) => guarded(r, () => reply({ status: 200, body: ownParts() }));
export const PUT = (r: Request) => guarded(r, async () => reply(saveOwnPart(await jsonBody(r))));
export const DELETE = (r: Request) =>
  guarded(r, () => reply(removeOwnPart(new URL(r.url).searchParams.get("id") ?? "")));
