import { holder } from "../../../server/guard";
import { closeHolder, holders } from "../../../server/holders";
import { guarded, jsonBody, reply } from "../reply";

export const dynamic = "force-dynamic";
/** Who holds the bench's link; for those who hold it themselves. */
export const GET = (r: Request) =>
  guarded(
    r,
    () => reply({ status: 200, body: process.env.LATTICE_LAN === "1" ? holders(holder(r.headers)) : [] }),
    "POST",
  );

/** Closes one of them out. */
export const POST = (r: Request) =>
  guarded(r, async () => {
    const id = ((await jsonBody(r)) as { id?: unknown } | undefined)?.id;
    return typeof id === "string" && closeHolder(id)
      ? reply({ status: 200, body: { id } })
      : reply({ status: 404, body: { message: "Nobody of that name holds the link." } });
  });
