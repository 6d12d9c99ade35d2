import type { ReactNode } from "react";
import { ProjectFrame } from "@/ui/frame/frame";

export default async function Layout({ children, params }: { children: ReactNode; params: Promise<{ id: string }> }) {
  return <ProjectFrame id={(await params).id}>{children}</ProjectFrame>;
}
