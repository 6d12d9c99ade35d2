"use client";
import { VisuallyHidden } from "radix-ui";
import type { ReactNode } from "react";

/** Words for the ear only: what the eye sees from where a thing stands. */
export const Hidden = ({ children }: { children: ReactNode }) => <VisuallyHidden.Root>{children}</VisuallyHidden.Root>;
