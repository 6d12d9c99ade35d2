import { z } from "zod";

const point = z.string().trim().min(1, "Say a point, such as M1.SDA or display sda.").max(80);
const ref = z.string().min(1, "Choose a part.").max(20);

/** Something to be done to wires, as plain data: what a form, a drag or a key press asks for. */
export const WireAskSchema = z.discriminatedUnion("do", [
  z.object({ do: z.literal("join"), from: point, to: point }),
  z.object({ do: z.literal("cut"), from: point, to: point }),
  z.object({ do: z.literal("swap"), from: point, to: point }),
  z.object({ do: z.literal("between"), from: point, to: point, part: z.string().min(1, "Choose a part.").max(60) }),
  z.object({ do: z.literal("take out"), ref, close: z.boolean() }),
  z.object({ do: z.literal("really"), from: point, to: point, really: point }),
  z.object({ do: z.literal("turn"), ref }),
  z.object({ do: z.literal("other row"), ref }),
]);
export type WireAsk = z.infer<typeof WireAskSchema>;
