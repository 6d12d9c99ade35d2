"use client";
import { Label as Radix } from "radix-ui";
import type { ComponentProps } from "react";

/** The words of a field: a press on them leads into it, and a double press selects nothing. */
export const Label = (props: ComponentProps<"label">) => <Radix.Root {...props} />;
