import { courses, createCourse } from "../../../server/courses";
import { guarded, jsonBody, reply } from "../reply";

export const dynamic = "force-dynamic";
export const GET = (r: Request) => guarded(r, () => reply({ status: 200, body: courses() }));
export const POST = (r: Request) => guarded(r, async () => reply(createCourse(await jsonBody(r))));
