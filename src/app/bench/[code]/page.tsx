import { BenchPage } from "@/ui/room/bench-page";

export const metadata = { title: "Bench" };

export default async function Page({ params }: { params: Promise<{ code: string }> }) {
  return <BenchPage code={(await params).code} />;
}
