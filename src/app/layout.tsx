import type { Metadata } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { Messages } from "@/ui/shared/messages";
import { Tips } from "@/ui/shared/tip";
import "./globals.css";

export const metadata: Metadata = {
  title: "Young Lattice",
  description: "Plans, checks and explains the wiring of microcontroller projects",
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Read so that every page is rendered with the nonce of its own policy.
  await headers();
  return (
    <html lang="en">
      <body>
        <Tips>{children}</Tips>
        <Messages />
      </body>
    </html>
  );
}
