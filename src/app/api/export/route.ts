import { NextResponse } from "next/server";
import { exportZip } from "../../../server/keeping";
import { guarded } from "../reply";

export const dynamic = "force-dynamic";
/** All projects and own parts as open files. */
export const GET = (r: Request) =>
  guarded(
    r,
    async () => {
      const { name, data } = await exportZip();
      return new NextResponse(data as Uint8Array<ArrayBuffer>, {
        headers: { "content-type": "application/zip", "content-disposition": `attachment; filename="${name}"` },
      });
    },
    "POST",
  );
