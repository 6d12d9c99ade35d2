import { BenchSums } from "@/ui/sums/bench-sums";

export const metadata = { title: "Bench sums" };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const given = await searchParams;
  const first = Object.fromEntries(
    Object.entries(given).map(([k, v]) => [k, Array.isArray(v) ? (v[0] ?? "") : (v ?? "")]),
  );
  return <BenchSums first={first} />;
}
