import { Home } from "@/ui/home/home";

export default function Page() {
  return <Home />;
}
