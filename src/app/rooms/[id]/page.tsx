import { RoomPage } from "@/ui/room/room-page";

export const metadata = { title: "Room" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <RoomPage id={(await params).id} />;
}
