import type { Drawing, Shape } from "../drawing";

/** Pictures of both schools, as line drawings of one size: boxes, wires, and the usual symbols. */
const W = 220;
const H = 110;
const at = (d: string, more: Partial<Shape> = {}): Shape =>
  ({ kind: "path", d, stroke: "ink", width: 1.4, ...more }) as Shape;
const wire = (...points: [number, number][]): Shape => at(`M${points.map((p) => p.join(" ")).join("L")}`);
const text = (x: number, y: number, t: string, anchor: "start" | "middle" | "end" = "middle", bold = false): Shape => ({
  kind: "text",
  x,
  y,
  text: t,
  size: 10,
  anchor,
  ...(bold && { bold }),
});
const box = (x: number, y: number, w: number, h: number, t: string): Shape[] => [
  { kind: "rect", x, y, w, h, stroke: "ink", fill: "paper", width: 1.4 },
  text(x + w / 2, y + h / 2 + 3.5, t),
];
const dot = (x: number, y: number): Shape => ({ kind: "circle", x, y, r: 2.6, fill: "ink" });
/** A resistor standing up, 30 high. */
const upright = (x: number, y: number, t: string): Shape[] => [
  { kind: "rect", x: x - 5, y, w: 10, h: 30, stroke: "ink", fill: "paper", width: 1.4 },
  text(x + 9, y + 18, t, "start"),
];
/** A resistor lying down, 30 long. */
const lying = (x: number, y: number, t: string): Shape[] => [
  { kind: "rect", x, y: y - 5, w: 30, h: 10, stroke: "ink", fill: "paper", width: 1.4 },
  text(x + 15, y - 9, t),
];
/** A contact standing up, 24 high. */
const contact = (x: number, y: number): Shape[] => [
  dot(x, y),
  dot(x, y + 24),
  at(`M${x} ${y + 24}L${x + 10} ${y + 2}`),
];
const ground = (x: number, y: number): Shape[] => [at(`M${x - 8} ${y}h16M${x - 5} ${y + 4}h10M${x - 2} ${y + 8}h4`)];
const plus = (x: number, y: number, t: string): Shape[] => [at(`M${x - 8} ${y}h16`), text(x, y - 4, t)];
/** A light lying down, pointing right, 16 long. */
const light = (x: number, y: number): Shape[] => [
  at(`M${x} ${y - 7}v14l14 -7zM${x + 14} ${y - 7}v14M${x + 9} ${y - 10}l5 -6M${x + 15} ${y - 9}l5 -6`, {
    fill: "paper",
  }),
];
const pin = (x: number, y: number, t: string): Shape[] => [
  { kind: "rect", x: x - 34, y: y - 9, w: 34, h: 18, stroke: "ink", fill: "wash", width: 1.4 },
  text(x - 17, y + 3.5, t, "middle", true),
];
export const picture = (...shapes: (Shape | Shape[])[]): Drawing => ({
  x: 0,
  y: 0,
  width: W,
  height: H,
  shapes: shapes.flat(),
});

export const button = {
  internalUp: () =>
    picture(
      pin(60, 55, "pin"),
      wire([60, 55], [120, 55], [120, 62]),
      contact(120, 62),
      wire([120, 86], [120, 94]),
      ground(120, 94),
      text(43, 38, "pull-up inside"),
    ),
  externalDown: () =>
    picture(
      pin(60, 55, "pin"),
      wire([60, 55], [120, 55]),
      dot(120, 55),
      plus(120, 14, "supply"),
      wire([120, 14], [120, 22]),
      contact(120, 22),
      wire([120, 46], [120, 60]),
      upright(120, 60, "10 kΩ"),
      wire([120, 90], [120, 96]),
      ground(120, 96),
    ),
  externalUp: () =>
    picture(
      pin(60, 55, "pin"),
      wire([60, 55], [120, 55]),
      dot(120, 55),
      plus(120, 14, "supply"),
      wire([120, 14], [120, 20]),
      upright(120, 20, "10 kΩ"),
      wire([120, 50], [120, 64]),
      contact(120, 64),
      wire([120, 88], [120, 96]),
      ground(120, 96),
    ),
};
export const led = {
  anode: () =>
    picture(
      pin(50, 50, "pin"),
      wire([50, 50], [70, 50]),
      lying(70, 50, "R"),
      wire([100, 50], [125, 50]),
      light(125, 50),
      wire([139, 50], [180, 50], [180, 80]),
      ground(180, 80),
    ),
  cathode: () =>
    picture(
      pin(50, 50, "pin"),
      wire([50, 50], [75, 50]),
      light(75, 50),
      wire([89, 50], [120, 50]),
      lying(120, 50, "R"),
      wire([150, 50], [180, 50], [180, 80]),
      ground(180, 80),
    ),
};
export const bounce = {
  software: () =>
    picture(
      at("M20 30h40v50h6v-50h5v50h4v-50h6v50h60", { stroke: "soft" }),
      at("M20 95h85v-8", { dash: [3, 2] }),
      text(112, 100, "20 ms later it counts", "start"),
      text(20, 20, "what the pin sees", "start"),
    ),
  rc: () =>
    picture(
      at("M20 30h40c10 0 12 50 40 50h90", {}),
      text(20, 20, "what the pin sees", "start"),
      lying(60, 100, ""),
      text(75, 92, "R"),
      wire([40, 100], [60, 100]),
      wire([90, 100], [120, 100]),
      at("M120 92v16M126 92v16"),
      text(140, 104, "C", "start"),
    ),
};
export const levels = {
  thresholds: () =>
    picture(
      at("M50 90V15M46 15h8M46 90h8"),
      text(40, 34, "3.3 V out", "end"),
      at("M46 30h60", { width: 3 }),
      at("M110 45h60", { dash: [4, 3] }),
      text(175, 48, "needs 2.0 V", "start"),
      text(110, 66, "margin 1.0 V: fine", "start"),
    ),
  sameNominal: () =>
    picture(
      ...box(8, 38, 58, 34, "3.3 V"),
      ...box(86, 38, 50, 34, "shifter"),
      ...box(156, 38, 56, 34, "5 V"),
      wire([66, 55], [86, 55]),
      wire([136, 55], [156, 55]),
    ),
};
const three = (y: number): Shape[] => [30, 95, 160].flatMap((x) => box(x, y, 40, 24, ""));
export const sharing = {
  rails: () =>
    picture(
      three(20),
      at("M14 84h192", { width: 3 }),
      [50, 115, 180].map((x) => wire([x, 44], [x, 84])),
      text(14, 100, "rail", "start"),
    ),
  daisyChain: () =>
    picture(
      three(30),
      wire([8, 42], [30, 42]),
      wire([70, 42], [95, 42]),
      wire([135, 42], [160, 42]),
      text(110, 90, "from part to part"),
    ),
  splice: () =>
    picture(
      three(14),
      [50, 115, 180].map((x) => wire([x, 38], [115, 84])),
      { kind: "circle", x: 115, y: 86, r: 7, fill: "ink" } satisfies Shape,
      text(128, 100, "one splice", "start"),
    ),
};
export const grounds = {
  joined: () =>
    picture(
      ...box(12, 20, 70, 34, "board"),
      ...box(138, 20, 70, 34, "motor"),
      wire([47, 54], [47, 84], [173, 84], [173, 54]),
      ground(110, 84),
      wire([82, 37], [138, 37]),
    ),
  isolated: () =>
    picture(
      ...box(6, 20, 62, 34, "board"),
      ...box(152, 20, 62, 34, "motor"),
      ...box(86, 24, 48, 26, "gap"),
      wire([68, 37], [86, 37]),
      wire([134, 37], [152, 37]),
      wire([37, 54], [37, 80]),
      ground(37, 80),
      wire([183, 54], [183, 80]),
      ground(183, 80),
      at("M110 56v44", { dash: [4, 4] }),
    ),
};
export const strips = {
  ownSupply: () =>
    picture(
      ...box(8, 14, 60, 28, "board"),
      ...box(8, 68, 60, 28, "supply"),
      ...box(110, 40, 104, 24, "full brightness"),
      wire([68, 28], [120, 28], [120, 40]),
      wire([68, 82], [160, 82], [160, 64]),
    ),
  usbCapped: () =>
    picture(
      ...box(8, 40, 54, 28, "USB"),
      ...box(80, 40, 54, 28, "board"),
      ...box(150, 42, 64, 24, "dimmer"),
      wire([62, 54], [80, 54]),
      wire([134, 54], [150, 54]),
    ),
};
export const build = {
  breadboard: () =>
    picture(
      { kind: "rect", x: 20, y: 24, w: 180, h: 62, stroke: "ink", width: 1.4 } satisfies Shape,
      Array.from({ length: 51 }, (_, i): Shape => ({
        kind: "circle",
        x: 30 + (i % 17) * 10,
        y: 38 + Math.floor(i / 17) * 16,
        r: 1.6,
        fill: "ink",
      })),
      at("M40 38c10 -22 50 -22 60 0", { width: 2 }),
    ),
  solder: () =>
    picture(
      { kind: "rect", x: 20, y: 24, w: 180, h: 62, stroke: "ink", width: 1.4 } satisfies Shape,
      at("M40 55h60M120 40v30h50", { width: 2 }),
      [40, 100, 170].map((x): Shape => ({ kind: "circle", x, y: x === 170 ? 70 : 55, r: 5, fill: "ink" })),
      { kind: "circle", x: 120, y: 40, r: 5, fill: "ink" } satisfies Shape,
    ),
};
const order = (a: string, b: string) =>
  picture(
    ...box(14, 40, 84, 30, a),
    ...box(122, 40, 84, 30, b),
    at("M98 55h20M112 50l6 5l-6 5"),
    text(56, 30, "first"),
    text(164, 30, "then"),
  );
export const leads = { last: () => order("short wires", "leads"), first: () => order("leads", "short wires") };
export const program = {
  nonBlocking: () =>
    picture(
      [24, 52, 80].flatMap((y, k): Shape[] => [
        text(10, y + 4, ["lamp", "button", "sensor"][k]!, "start"),
        at(`M60 ${y}h150`, { stroke: "line" }),
        ...Array.from({ length: 4 - k }, (_, i): Shape => ({
          kind: "rect",
          x: 62 + i * (38 + 14 * k),
          y: y - 6,
          w: 12,
          h: 12,
          fill: "ink",
        })),
      ]),
    ),
  delays: () => picture(["lamp", "wait", "sensor", "wait"].flatMap((t, i) => box(8 + i * 53, 40, 46, 28, t))),
};
