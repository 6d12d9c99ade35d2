import { Unlock } from "@/ui/home/unlock";

export const dynamic = "force-dynamic";

export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string | string[] }> }) {
  const { to } = await searchParams;
  // Only into this app: one slash, not two.
  return <Unlock to={typeof to === "string" && /^\/(?![/\\])/.test(to) ? to : "/"} />;
}
