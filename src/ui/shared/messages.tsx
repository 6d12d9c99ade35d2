"use client";
import { Toaster } from "sonner";
import { tellNonce } from "./nonce";

tellNonce();

/** Short messages at the foot of the window. */
export function Messages() {
  return (
    <Toaster
      position="bottom-left"
      duration={5000}
      toastOptions={{ className: "!bg-ink !text-paper !border-0 !rounded-sm !font-sans" }}
    />
  );
}
