import type { Pattern } from "../types";
import { button, COMMON, lamp, piece, pressed, USB } from "./pieces";

export const alternatingLamps: Pattern = {
  id: "alternating-lamps",
  title: "Model railway crossing",
  goal: "Two red lamps flash in turn beside the track for ten seconds once a train has closed the contact.",
  learns: "One thing after the other, and a second one against it; two lights, each with its resistor.",
  boards: COMMON,
  parts: [USB, piece("SW1", "discrete/reed", "Track contact"), lamp("LED1", "Left lamp"), lamp("LED2", "Right lamp")],
  rules: [
    {
      when: pressed("SW1"),
      do: {
        ref: "LED1",
        act: "sequence",
        steps: [
          { value: "on", for_s: 0.5 },
          { value: "off", for_s: 0.5 },
        ],
        times: 10,
      },
    },
    {
      when: pressed("SW1"),
      do: {
        ref: "LED2",
        act: "sequence",
        steps: [
          { value: "off", for_s: 0.5 },
          { value: "on", for_s: 0.5 },
        ],
        times: 10,
      },
    },
  ],
  onward: [
    {
      id: "barrier",
      says: "A barrier on a servo that comes down while the lamps flash.",
      parts: [piece("S2", "supply/adapter-5v-2a", "Barrier supply"), piece("M1", "module/servo-small", "Barrier")],
      rules: [
        {
          when: pressed("SW1"),
          do: {
            ref: "M1",
            act: "sequence",
            steps: [
              { value: 0, for_s: 9 },
              { value: 90, for_s: 1 },
            ],
            times: 1,
          },
        },
      ],
    },
    {
      id: "bell",
      says: "A bell that begins with the lamps.",
      parts: [piece("M1", "module/buzzer-active", "Bell")],
      rules: [{ when: pressed("SW1"), do: { ref: "M1", act: "for", for_s: 3 } }],
    },
    {
      id: "by-hand",
      says: "A button for the crossing keeper, and a green lamp for the road while it is held.",
      parts: [button("SW2", "Keeper"), lamp("LED3", "Road clear", "green")],
      rules: [{ when: pressed("SW2"), do: { ref: "LED3", act: "on" } }],
    },
  ],
};
