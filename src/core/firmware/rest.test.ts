import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { BOARD5, catalogue, make, USB } from "../testing";
import { driverParts } from "./pins";
import { restOf, RESTS } from "./rest";
import { targetById } from ".";

/** Kinds whose own driver knows how their pins rest. */
const OWN = new Set(["led", "button", "key-grid", "light-grid", "light-ring"]);

describe("resting levels", () => {
  it("are stated for every pin of the catalogue that a board drives", () => {
    const open = catalogue.parts
      .filter((p) => p.bringup && !OWN.has(p.bringup.driver))
      .flatMap((p) =>
        p.pins
          .filter((x) => x.need && ["digital-out", "pwm"].includes(x.need.kind))
          .filter((x) => !x.restsAt && RESTS[p.id]?.[x.label] === undefined)
          .map((x) => `${p.id} ${x.label}`),
      );
    expect(open).toEqual([]);
  });
  it("name only parts and pins that there are", () => {
    for (const [id, pins] of Object.entries(RESTS))
      for (const label of Object.keys(pins))
        expect(
          catalogue.get(id)?.pins.some((x) => x.label === label),
          `${id} ${label}`,
        ).toBe(true);
  });
  it("follow the part's options, and a pin that nobody stated is let go, whatever it is called", () => {
    const relay = (trigger: string) =>
      driverParts(
        circuitOf(
          make(
            [BOARD5, USB, { ref: "M1", part: "module/relay-1", label: "Pump", options: { trigger } }],
            [
              ["S1.USB", "B1.USB"],
              ["M1.IN", "B1.D7"],
            ],
          ),
          catalogue,
        ),
        "B1",
        "sketch",
        (b) => b,
      )[0]!;
    expect(restOf(relay("low"), "IN")).toBe(1);
    expect(restOf(relay("high"), "IN")).toBe(0);
    const part = { ...catalogue.get("module/mosfet-switch")!, id: "module/unknown" };
    expect(restOf({ inst: { part } } as never, "SIG")).toBe("float");
  });
  it("come before the direction, and a pin that is let go is an input", () => {
    const c = circuitOf(
      make(
        [BOARD5, USB, { ref: "M1", part: "module/drv8833", label: "Wheels" }],
        [
          ["S1.USB", "B1.USB"],
          ...["IN1", "IN2", "IN3", "IN4", "EEP"].map((p, i) => [`M1.${p}`, `B1.D${i + 4}`] as [string, string]),
        ],
      ),
      catalogue,
    );
    const text = targetById("sketch")!
      .files(c)
      .find((f) => f.path === "starter/starter.ino")!.text;
    expect(text).toMatch(/digitalWrite\(PIN_WHEELS_IN1, LOW\);\s+pinMode\(PIN_WHEELS_IN1, OUTPUT\);/);
    expect(text).toContain("pinMode(PIN_WHEELS_EEP, INPUT);");
    expect(text).not.toContain("digitalWrite(PIN_WHEELS_EEP");
  });
});
