import { notFound } from "next/navigation";
import { partPage } from "@/server/parts";
import { PartPage } from "@/ui/parts/part-page";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ kind: string; slug: string }> }) {
  const { kind, slug } = await params;
  const page = partPage(`${kind}/${slug}`);
  if (!page) notFound();
  return <PartPage {...page} />;
}
