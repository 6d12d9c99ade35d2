import { Courses } from "@/ui/courses/courses";

export const metadata = { title: "Courses" };

export default function Page() {
  return <Courses />;
}
