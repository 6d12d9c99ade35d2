import { z } from "zod";
import { SPARE_KINDS, TitleSchema } from "../project";
import { MOST_LESSONS } from "./types";

export const COURSE_FORMAT = "young-lattice-course";

/** A lesson of a course: which project, in which week, and whether what was built stays together afterwards. */
export const CourseLessonSchema = z.strictObject({
  project: z.string().min(1).max(60),
  week: z.number().int().min(1).max(60),
  stays: z.boolean().default(false),
});

/** Several projects that share one kit. */
export const CourseSchema = z.strictObject({
  format: z.literal(COURSE_FORMAT),
  version: z.literal(1),
  title: TitleSchema,
  benches: z.number().int().min(1).max(60),
  /** Weeks from ordering to having, and to counting what came. */
  lead_weeks: z.number().int().min(0).max(26),
  spares_percent: z.partialRecord(z.enum(SPARE_KINDS), z.number().min(0).max(300)).default({}),
  lessons: z.array(CourseLessonSchema).max(MOST_LESSONS),
});
export type Course = z.infer<typeof CourseSchema>;

export const emptyCourse = (title: string): Course =>
  CourseSchema.parse({ format: COURSE_FORMAT, version: 1, title, benches: 8, lead_weeks: 2, lessons: [] });
