import { CoursePage } from "@/ui/courses/course";

export const metadata = { title: "Course" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <CoursePage id={(await params).id} />;
}
