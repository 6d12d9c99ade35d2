import { findPin } from "../../parts/catalogue";
import { restOf } from "../../circuit/solve";
import { seriesOhm } from "../graph";
import { moveFix } from "../help";
import type { Found, Rule, Severity } from "../types";
import { hostPin, place, needOf } from "../pins";

/** What a programmer can't overcome: an output straight on its line, or a load of more than this. */
const PROGRAM_MA = 10;

export const pinIspShared: Rule = {
  rule: "pin.isp-shared",
  says: "The programmer's lines must be free while it works: what else hangs on them needs a resistor or must let go.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      const host = c.netlist.instance(b.host)!.part;
      const h = hostPin(c, b)?.hazards?.find((x) => x.kind === "programming");
      if (!h || !host.board) return [];
      const finding = (severity: Severity, why: string, fixes: Found["fixes"]): Found => ({
        rule: "pin.isp-shared",
        severity,
        at: place(b),
        message: `${b.ref}.${b.pin} is on ${b.host}.${b.hostPin}, which ${h.says}. ${why}`,
        evidence: { pin: b.hostPin },
        fixes,
      });
      const isp = host.id.startsWith("chip/") && /programmer/.test(h.says);
      if (!isp)
        return host.id.startsWith("chip/")
          ? [finding("risk", "Use another pin, or clear the fuse.", moveFix(c, b.ref, b.pin, b.host, needOf(c, b)))]
          : [];
      const inst = c.netlist.instance(b.ref)!;
      const spi = inst.part.groups.find((g) => g.kind === "spi" && Object.values(g.pins).includes(b.pin));
      if (spi?.pins.cs) {
        const held = restOf(c.solved, c.netlist.netOf(`${b.ref}.${spi.pins.cs}`).id)?.side === "high";
        return held || b.pin !== spi.pins.miso
          ? []
          : [
              finding("risk", "While the programmer works, its select floats and it may answer.", [
                {
                  id: "hold-select",
                  label: `Add 10 kΩ from ${b.ref}.${spi.pins.cs} to the logic supply`,
                  edits: [
                    { type: "setCompanion", ref: b.ref, key: "pullUp", value: { ohm: 10_000, pin: spi.pins.cs } },
                  ],
                },
              ]),
            ];
      }
      const out = c.netlist.level(b.ref, b.pin)?.output === "push-pull" && findPin(inst.part, b.pin)?.io === "out";
      const series =
        seriesOhm(c, c.netlist.netOf(`${b.ref}.${b.pin}`).id, c.netlist.netOf(`${b.host}.${b.hostPin}`).id) ?? 0;
      if (out && series < 900)
        return [
          finding("risk", "It drives the line against the programmer: uploading fails.", [
            {
              id: "series-resistor",
              label: `Put 1 kΩ in the wire to ${b.ref}.${b.pin}`,
              edits: [{ type: "setCompanion", ref: b.ref, key: "seriesResistor", value: { ohm: 1000, pin: b.pin } }],
            },
          ]),
        ];
      const led = c.leds.find((p) =>
        [p.high, p.low].some((e) => e.kind === "pin" && e.end.ref === b.host && e.end.pin === b.hostPin),
      );
      if (led?.I && led.I.max * 1000 > PROGRAM_MA)
        return [
          finding(
            "risk",
            `It loads the programmer with ${(led.I.max * 1000).toFixed(0)} mA.`,
            moveFix(c, b.ref, b.pin, b.host, needOf(c, b)),
          ),
        ];
      return [];
    }),
};
