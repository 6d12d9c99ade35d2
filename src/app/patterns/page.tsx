import { Patterns } from "@/ui/patterns/patterns";

export const metadata = { title: "Patterns" };

export default function Page() {
  return <Patterns />;
}
