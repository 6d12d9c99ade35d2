/** For the rules: a thicker wire. */
import type { Fix } from "./types";

export const gaugeFix = (ref: string, awg: number): Fix[] => [
  {
    id: "gauge",
    label: `Take ${awg} AWG for the supply of ${ref}`,
    edits: [{ type: "setOption", ref, key: "wire_awg", value: awg }],
  },
];
