import { Enter } from "@/ui/room/enter";

export const metadata = { title: "Bench" };

export default function Page() {
  return <Enter />;
}
