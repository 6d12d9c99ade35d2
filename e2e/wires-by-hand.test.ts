/** Jobs that people wire by hand, each from a list of parts without a wire: once with the mouse, once with the keyboard alone. */
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import { makeProject, startApp, verdict, type App, pick } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

type Act = { join: [string, string] } | { into: [string, string]; part: string };
interface Scene {
  title: string;
  parts: object[];
  acts: Act[];
  /** Wires that stand at the end, by their test name. */
  wires: [string, string][];
}

const AVR = { ref: "B1", part: "board/atmega328p-long" };
const light = (n: number, first: boolean) => ({
  ref: `LED${n}`,
  part: "discrete/led-red",
  label: `Light ${n}`,
  companions: { seriesResistor: first ? { ohm: 220 } : null },
});
const join = (...list: [string, string][]): Act[] => list.map((x) => ({ join: x }));

const SCENES: Scene[] = [
  {
    title: "contacts in series and side by side",
    parts: [
      AVR,
      { ref: "SW1", part: "discrete/button", label: "Left", companions: { pullUp: "internal" } },
      { ref: "SW2", part: "discrete/button", label: "Right" },
      { ref: "SW3", part: "discrete/toggle", label: "Door" },
    ],
    acts: join(
      ["left 1", "D4"],
      ["right 1", "SW1.1"],
      ["left 2", "SW3.1"],
      ["right 2", "SW1.2"],
      ["SW3.2", "ground of the board"],
    ),
    wires: [["SW3.2", "B1.GND"]],
  },
  {
    title: "two strings of lights on four wires",
    parts: [AVR, light(1, true), light(2, false), light(3, true), light(4, false)],
    acts: join(
      ["light 1 anode", "D3"],
      ["LED1.K", "LED2.A"],
      ["light 2 cathode", "D4"],
      ["light 3 anode", "D5"],
      ["LED3.K", "LED4.A"],
      ["light 4 cathode", "D6"],
    ),
    wires: [
      ["LED1.K", "LED2.A"],
      ["LED4.K", "B1.D6"],
    ],
  },
  {
    title: "a transistor stage into a 12 V gauge",
    parts: [
      AVR,
      { ref: "S2", part: "supply/adapter-12v-2a", label: "Gauge supply" },
      { ref: "X1", part: "discrete/gauge-12v", label: "Depth gauge" },
    ],
    acts: [
      ...join(
        ["X1.VCC", "gauge supply 12V"],
        ["X1.GND", "gauge supply ground"],
        ["gauge supply ground", "ground of the board"],
        ["X1.IN", "D9"],
      ),
      { into: ["X1.IN", "B1.D9"], part: "discrete/nmos-irlz44n" },
    ],
    wires: [["Q1.D", "X1.IN"]],
  },
  {
    title: "a barrel socket and a switch in the supply's way",
    parts: [
      AVR,
      { ref: "S1", part: "supply/adapter-9v-1a", label: "Adapter" },
      { ref: "J1", part: "connector/barrel", label: "Socket" },
    ],
    acts: [
      ...join(["adapter 9V", "J1.+"], ["J1.+", "VIN"], ["adapter ground", "J1.-"], ["J1.-", "ground of the board"]),
      { into: ["J1.+", "B1.VIN"], part: "discrete/toggle" },
    ],
    wires: [["S1.9V", "J1.+"]],
  },
  {
    title: "a module straight to a module",
    parts: [
      { ref: "S1", part: "supply/adapter-5v-2a", label: "Adapter" },
      { ref: "M1", part: "module/pir", label: "Motion" },
      { ref: "K1", part: "module/relay-1", label: "Lamp relay" },
    ],
    acts: join(
      ["motion vcc", "adapter 5V"],
      ["motion ground", "adapter ground"],
      ["lamp relay vcc", "adapter 5V"],
      ["lamp relay ground", "adapter ground"],
      ["motion out", "lamp relay in"],
    ),
    wires: [["M1.OUT", "K1.IN"]],
  },
  {
    title: "no board: a serial adapter through an isolator",
    parts: [
      { ref: "M1", part: "module/usb-uart-3v3", label: "Adapter" },
      { ref: "M2", part: "module/isolator-2ch", label: "Barrier" },
      { ref: "S2", part: "supply/adapter-5v-2a", label: "Far supply" },
    ],
    acts: join(
      ["M1.3V3", "M2.VCC1"],
      ["M1.GND", "M2.GND1"],
      ["far supply 5V", "M2.VCC2"],
      ["far supply ground", "M2.GND2"],
      ["M1.TX", "M2.INA"],
    ),
    wires: [["M1.TX", "M2.INA"]],
  },
];

const count = (page: Page) => page.locator('[data-testid^="wire-"]').count();
const told = (page: Page) => page.getByRole("region", { name: "Join two points" }).getByTestId("told");

interface Hands {
  join(page: Page, a: string, b: string): Promise<void>;
  into(page: Page, wire: string, part: string): Promise<void>;
}

const mouse: Hands = {
  async join(page, a, b) {
    for (const [field, text] of [
      ["from", a],
      ["to", b],
    ] as const) {
      await page.getByLabel(field, { exact: true }).click();
      await page.getByLabel(field, { exact: true }).fill(text);
    }
    await page.getByRole("button", { name: "Join", exact: true }).click();
  },
  async into(page, wire, part) {
    await page.getByRole("button", { name: `put in: ${wire}` }).click();
    await pick(page.getByLabel("Put in between"), part);
    await page.getByRole("button", { name: "Put in", exact: true }).click();
  },
};

/** Tab and Shift+Tab until the wanted control has the focus: nothing is reached that a keyboard does not reach. */
async function tabTo(page: Page, name: RegExp) {
  for (let i = 0; i < 400; i++) {
    const at = await page.evaluate(() => {
      const e = document.activeElement as HTMLInputElement | null;
      const label = e?.getAttribute("aria-label") ?? e?.labels?.[0]?.innerText ?? e?.textContent ?? "";
      return label.trim();
    });
    if (name.test(at)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`no key leads to ${String(name)}`);
}

const keyboard: Hands = {
  async join(page, a, b) {
    await tabTo(page, /^from$/);
    await page.keyboard.type(a);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Enter");
    await tabTo(page, /^to$/);
    await page.keyboard.type(b);
    await expect.poll(() => told(page).innerText()).toMatch(/Then:/);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Enter");
  },
  async into(page, wire, part) {
    await tabTo(page, new RegExp(`^put in: ${wire.replace(/[.+]/g, "\\$&")}$`));
    await page.keyboard.press("Enter");
    await page.getByLabel("Put in between").press("Enter");
    await page.getByRole("option").first().waitFor();
    const at = () => page.evaluate(() => document.activeElement?.getAttribute("data-value"));
    await expect.poll(at).not.toBeNull();
    for (let i = 0; i < 60 && (await at()) !== part; i++) await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await tabTo(page, /^Put in$/);
    await expect.poll(() => page.getByRole("button", { name: "Put in", exact: true }).isEnabled()).toBe(true);
    await page.keyboard.press("Enter");
  },
};

const METHODS = [
  ["with the mouse", mouse],
  ["with the keyboard alone", keyboard],
] as const;

describe.each(METHODS)("%s", (_name, hands) => {
  it.each(SCENES.map((s) => [s.title, s] as const))("%s", async (_title, s) => {
    const { page, context } = await app.session();
    await makeProject(app, page, s.title, { parts: s.parts, links: [] }, "wiring?show=wires");
    await page.getByText("No wire yet").waitFor();
    for (const a of s.acts) {
      const before = await count(page);
      if ("join" in a) await hands.join(page, ...a.join);
      else await hands.into(page, a.into.join(" to "), a.part);
      await expect.poll(() => count(page), { message: JSON.stringify(a) }).toBeGreaterThan(before);
    }
    for (const [from, to] of s.wires)
      await page.locator(`[data-testid="wire-${from}-${to}"], [data-testid="wire-${to}-${from}"]`).waitFor();
    await expect.poll(() => verdict(page)).not.toMatch(/Do not power/);
    await context.close();
  });
});
