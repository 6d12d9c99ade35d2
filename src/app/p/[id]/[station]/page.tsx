import { notFound } from "next/navigation";
import { StationView } from "@/ui/stations/station";
import { isStation } from "@/ui/stations/list";

export default async function Page({ params }: { params: Promise<{ station: string }> }) {
  const { station } = await params;
  if (!isStation(station)) notFound();
  return <StationView name={station} />;
}
