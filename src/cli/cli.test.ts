import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { unzipSync } from "fflate";
import { catalogue } from "../core/testing";
import { openDatabase } from "../db/database";
import { deleteProject, insertProject, listProjects } from "../db/projects";
import { main } from "./main";
import { writePlanFolder } from "./plan-folder";

const demo = (name: string) => path.resolve(import.meta.dirname, `../../demo/${name}.lattice.json`);
let out = "";
let err = "";
let dir = "";
beforeEach(() => {
  out = err = "";
  dir = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-cli-"));
  vi.spyOn(process.stdout, "write").mockImplementation((t) => ((out += String(t)), true));
  vi.spyOn(process.stderr, "write").mockImplementation((t) => ((err += String(t)), true));
});
afterEach(() => {
  vi.restoreAllMocks();
  fs.rmSync(dir, { recursive: true, force: true });
});

const write = (name: string, data: unknown) => {
  const file = path.join(dir, name);
  fs.writeFileSync(file, typeof data === "string" ? data : JSON.stringify(data));
  return file;
};
const project = (parts: object[], links: object[] = []) => ({
  format: "young-lattice-project",
  version: 1,
  title: "t",
  parts,
  links,
});
const B1 = { ref: "B1", part: "board/atmega328p-long" };

describe("lattice", () => {
  it("proposes parts for an idea, and makes the project of it", async () => {
    const file = path.join(dir, "idea.json");
    const words = "tell me when the plants are dry, show it, keep a record".split(" ");
    expect(await main(["idea", ...words, "--take", "soil=prongs", "--out", file, "--json"])).toBe(0);
    const told = JSON.parse(out) as { wishes: { thing: string }[]; verdict: string };
    expect(told.wishes.map((w) => w.thing)).toEqual(["alert", "soil", "text", "record"]);
    expect(told.verdict).toMatch(/^(Ready to wire|Can be wired)/);
    const made = JSON.parse(fs.readFileSync(file, "utf8")) as { parts: { part: string }[] };
    expect(made.parts.map((p) => p.part)).toContain("module/soil-resistive");
    out = "";
    const lamps = path.join(dir, "lamps.json");
    expect(await main(["idea", "dim three lamps with a knob, and a photo of butons", "--out", lamps])).toBe(0);
    expect(out).toMatch(/a small light as a sign.* × 3/);
    expect(out).toContain("does: Lamp 2 follows Knob (turned).");
    expect(out).toMatch(/"photo": Pictures from a camera/);
    expect(out).toContain('read as: "butons" as "buttons"');
    out = "";
    expect(await main(["simulate", lamps, "--seconds", "3", "--set", "POT1.pct=40@1"])).toBe(0);
    expect(out).toMatch(/^LED2 Lamp 2: lit at (39|40) %/m);
    expect(await main(["idea", "nothing", "for", "us"])).toBe(2);
    expect(await main(["idea", "show", "the", "temperature", "--take", "soil=prongs"])).toBe(2);
    expect(err).toContain('this idea has no "soil"; it has text, temperature');
  });
  it("lists parts and shows one", async () => {
    expect(await main(["parts", "--kind", "supply"])).toBe(0);
    expect(out).toMatch(/^supply\/usb-port +USB port/m);
    expect(out.trim().split("\n")).toHaveLength(17);
    out = "";
    expect(await main(["part", "module/bme280", "--json"])).toBe(0);
    expect(JSON.parse(out)).toMatchObject({ id: "module/bme280", certainty: "medium" });
    expect(await main(["part", "module/none"])).toBe(2);
    expect(err).toContain("there is no such part");
  });
  it("simulates the starter: what it prints and does, with contacts pressed and sensors that feel something else", async () => {
    const moss = demo("moss-terrarium");
    const acts = ["--press", "SW1@2-2.5", "--set", "M1.t_C=-4.5@3"];
    expect(await main(["simulate", moss, "--seconds", "5", ...acts])).toBe(0);
    expect(out).toMatch(/^ +0\.00 {2}YL1 plan B1 id=\w+ info$/m);
    expect(out).toMatch(/^ +2\.0\d {2}Mist button pressed$/m);
    expect(out).toMatch(/^ +5\.00 {2}-4\.5 C 42 % 1007 hPa {2}running 5 s$/m);
    expect(out).toMatch(/^M2 Display: \[Display +\]/m);
    out = "";
    expect(await main(["simulate", moss, "--json"])).toBe(0);
    expect(JSON.parse(out)).toMatchObject({ board: "B1", shows: [{ kind: "rows", ref: "M2" }, { kind: "strip" }] });
  });
  it.each([
    [["--press", "M1@1"], "M1@1: M1 is no contact that can be pressed"],
    [["--press", "SW1"], "--press SW1: a contact and seconds are needed"],
    [["--press", "SW1@99"], "SW1@99: that is after the end, at 10 s"],
    [["--set", "M1.colour=1"], 'M1 does not feel "colour"'],
    [["--set", "M1.t_C=warm"], "a number are needed"],
    [["--seconds", "0"], "--seconds 0: a number above 0 and up to 3600 is needed"],
    [["--board", "B7"], "--board B7: no program is tried there; boards here: B1"],
  ])("simulates nothing for %j", async (args, says) => {
    expect(await main(["simulate", demo("moss-terrarium"), ...args])).toBe(2);
    expect(err).toContain(says);
  });
  it("simulates a fault of the build, and writes what the pins did", async () => {
    const vcd = path.join(dir, "pins.vcd");
    expect(
      await main(["simulate", demo("moss-terrarium"), "--fault", "open-wire M1.SDA", "--seconds", "3", "--vcd", vcd]),
    ).toBe(0);
    expect(out).toContain("Air sensor --");
    expect(fs.readFileSync(vcd, "utf8")).toMatch(/^\$timescale 1 ns \$end$/m);
    out = "";
    expect(await main(["simulate", demo("moss-terrarium"), "--fault", "open-wire"])).toBe(2);
    expect(err).toMatch(/\d+ faults begin so; for instance:/);
    err = "";
    expect(await main(["simulate", demo("moss-terrarium"), "--fault", "gremlin"])).toBe(2);
    expect(err).toContain("there is no such fault; kinds here: open-wire");
  });
  it("judges a log and readings: suspects and the next measurement, 3 when something is odd", async () => {
    const log = path.join(dir, "log.txt");
    const csv = path.join(dir, "readings.csv");
    fs.writeFileSync(log, "YL1 hello B1 chip=x info\nYL1 sensor M1 fresh=0 fail\nYL1 act M2 told=1 fresh=1 ok\n");
    fs.writeFileSync(csv, "from,to,reading\nM1.SDA,B1.GP4,OL\nM1.VCC,M1.GND,3.29 V\nM1.Q,M1.GND,1 V\n");
    expect(await main(["judge", demo("moss-terrarium"), log, "--readings", csv, "--json"])).toBe(3);
    const r = JSON.parse(out) as {
      suspects: { faults: { id: string }[]; share: number }[];
      odd: string[];
      next: unknown;
    };
    expect(r.suspects[0]!.faults[0]!.id).toBe("open-wire M1.SDA B1.GP4");
    expect(r.suspects[0]!.share).toBeGreaterThan(0.3);
    expect(r.odd).toEqual(["M1: does not work", "M1.SDA to B1.GP4: no beep"]);
    expect(err).toContain('line 4: "M1.Q" is no pin of this plan');
    out = "";
    fs.writeFileSync(log, "");
    expect(await main(["judge", demo("moss-terrarium"), log])).toBe(3);
    expect(out).toContain("The log is empty: nothing was printed.");
    expect(await main(["judge", demo("moss-terrarium"), path.join(dir, "none.txt")])).toBe(2);
  });
  it("prints the key of a set for a class, and refuses what is no level", async () => {
    expect(await main(["train", demo("rain-barrel"), "--key", "--benches", "4", "--json"])).toBe(0);
    const { key } = JSON.parse(out) as { key: { bench: number; seed: number; faults: string[] }[] };
    expect(key.map((k) => k.bench)).toEqual([1, 2, 3, 4]);
    expect(new Set(key.map((k) => k.seed)).size).toBe(4);
    out = "";
    expect(await main(["train", demo("rain-barrel"), "--key", "--benches", "3", "--same", "--json"])).toBe(0);
    expect(new Set((JSON.parse(out) as { key: { faults: string[] }[] }).key.map((k) => k.faults.join())).size).toBe(1);
    expect(await main(["train", demo("rain-barrel"), "--level", "wizard"])).toBe(2);
    expect(err).toContain("levels are visible, continuity, voltage, bus, two");
  });
  it("holds a capture against the plan, and says what is no capture", async () => {
    const file = path.join(dir, "bus.vcd");
    fs.writeFileSync(
      file,
      "$timescale 1 us $end $var wire 1 ! SDA $end $var wire 1 & SCL $end $enddefinitions $end\n#0 1! 0&\n#50 0!\n#90 1!\n",
    );
    expect(await main(["capture", demo("moss-terrarium"), file])).toBe(3);
    expect(out).toContain("SCL rests low");
    fs.writeFileSync(file, "hello");
    expect(await main(["capture", demo("moss-terrarium"), file])).toBe(2);
    expect(err).toContain("its first row names no column Time");
    expect(await main(["capture", demo("moss-terrarium"), file, "--map", "D0"])).toBe(2);
  });
  it("checks: 0 when sound, 3 with a fault, JSON on stdout", async () => {
    expect(await main(["check", demo("rain-barrel")])).toBe(0);
    expect(out).toContain("Ready to wire");
    out = "";
    expect(await main(["check", demo("moss-terrarium"), "--json"])).toBe(3);
    expect(JSON.parse(out)[0]).toMatchObject({ rule: "level.low-high", severity: "fault", fixes: [{ id: "buffer" }] });
  });
  it("says what a place is, and refuses one that is none", async () => {
    expect(await main(["about", demo("rain-barrel"), "M1.ECHO"])).toBe(0);
    expect(out).toMatch(/^Water echo \(M1\), pin ECHO\nOutput: the board reads it\.\n {2}Goes to B1\.D2\./);
    expect(out).toContain("Without it the board's input floats");
    expect(await main(["about", demo("rain-barrel"), "M9.X"])).toBe(2);
    expect(err).toMatch(/M9\.X: there is no such place/);
  });
  it("refuses unusable input with file, path and what would be right", async () => {
    expect(await main(["check", path.join(dir, "none.json")])).toBe(2);
    expect(err).toContain("there is no such file");
    err = "";
    const bad = write("bad.lattice.json", { ...project([B1]), colour: 1 });
    expect(await main(["check", bad])).toBe(2);
    expect(err).toBe(`${bad}: colour: the key "colour" is not known here; remove it\n`);
    err = "";
    expect(await main(["check", write("cut.json", '{"format":')])).toBe(2);
    expect(err).toContain("not valid JSON");
    expect(await main(["check", dir])).toBe(2);
    expect(await main(["frobnicate"])).toBe(2);
  });
  it("assigns, writes the planned project and the LP text", async () => {
    const file = write("p.json", project([B1, { ref: "D1", part: "discrete/led-red" }]));
    const [q, lp] = [path.join(dir, "q.lattice.json"), path.join(dir, "f.lp")];
    expect(await main(["assign", file, "--json", "--out", q, "--lp", lp])).toBe(0);
    const a = JSON.parse(out);
    expect(Object.keys(a)).toEqual(["status", "cost", "costBy", "links", "spare", "core", "ms"]);
    expect(a.links.find((l: { from: string }) => l.from === "D1.A").why).toContain("digital output");
    expect(JSON.parse(fs.readFileSync(q, "utf8")).parts[1].companions).toEqual({ seriesResistor: { ohm: 390 } });
    expect(fs.readFileSync(lp, "utf8")).toMatch(/^\\ pins[\s\S]*Minimize[\s\S]*Binaries[\s\S]*End\n$/);
    out = "";
    expect(await main(["check", q])).toBe(3); // nothing feeds the board yet
    expect(out).toContain("power.no-supply");
  });
  it("answers 4 and the clash when nothing fits, and writes nothing", async () => {
    const two = ["M1", "M2"].map((ref) => ({ ref, part: "module/ssd1306-i2c" }));
    const file = write("p.json", project([B1, ...two]));
    const q = path.join(dir, "q.json");
    expect(await main(["assign", file, "--out", q])).toBe(4);
    expect(err).toContain("both answer to address 0x3c");
    expect(fs.existsSync(q)).toBe(false);
    expect(await main(["plan", file, "--out", path.join(dir, "plan")])).toBe(4);
    expect(fs.readdirSync(dir)).toEqual(["p.json"]);
    expect(out).toMatch(/what would help, each tried:\n {2}Set M\d to address 0x3d/);
    out = "";
    expect(await main(["assign", file, "--json"])).toBe(4);
    const a = JSON.parse(out);
    expect(a.core.map((n: { need: string }) => n.need.split(".")[0])).toEqual(["M1", "M2"]);
    expect(a.remedies.map((r: { id: string }) => r.id)).toContain("add-tca9548a-1");
  });
  it("shows the next best plans, and refuses a number that is none", async () => {
    const file = write("p.json", project([B1, { ref: "D1", part: "discrete/led-red" }]));
    expect(await main(["assign", file, "--json", "--alternatives", "3"])).toBe(0);
    const { alternatives, cost } = JSON.parse(out);
    expect(alternatives).toHaveLength(3);
    for (const x of alternatives) expect(x.cost).toBe(cost + x.more);
    expect(await main(["assign", file, "--alternatives", "many"])).toBe(2);
    expect(err).toContain("--alternatives many: a whole number from 0 to 20 is wanted");
  });
  it("places parts on breadboards, writes the placement, and refuses a size that is none", async () => {
    const q = path.join(dir, "placed.lattice.json");
    expect(await main(["place", demo("beehive-scale"), "--out", q])).toBe(0);
    expect(out).toMatch(/^breadboards: 830 points; \d+ jumpers, \d+ mm of wire/);
    expect(out).toMatch(/^B1 +GP0 c1, /m);
    expect(out).toContain("beside: S1, a supply stands beside the breadboard");
    out = "";
    expect(await main(["check", q])).toBe(0);
    out = "";
    expect(await main(["place", demo("rain-barrel"), "--boards", "400", "--json"])).toBe(0);
    expect(JSON.parse(out)).toMatchObject({ sizes: ["400"], trouble: [] });
    expect(await main(["place", demo("rain-barrel"), "--boards", "500"])).toBe(2);
    expect(err).toContain("--boards 500: choose from 170, 400, 830");
  });
  it("tells a wired bench what changes", async () => {
    const p = JSON.parse(fs.readFileSync(demo("beehive-scale"), "utf8"));
    const links = p.links.map((l: { from: string; to: string }) =>
      [l.from, l.to].includes("SW1.1") ? { from: "SW1.1", to: "B1.GP14" } : l,
    );
    const q = write("q.lattice.json", { ...p, links });
    expect(await main(["rewire", demo("beehive-scale"), q])).toBe(0);
    expect(out).toMatch(/wires stay, 1 come off, 1 are laid\noff .*SW1\.1.*\nlay .*B1\.GP14/);
    out = "";
    expect(await main(["rewire", q, q, "--json"])).toBe(0);
    expect(JSON.parse(out)).toMatchObject({ takeOff: [], lay: [] });
  });
  it("prints every print, on either paper, and refuses others", async () => {
    for (const what of ["plan", "learner", "answers", "underlay", "panel", "plugboard", "labels"]) {
      const file = path.join(dir, `${what}.pdf`);
      expect(await main(["print", demo("rain-barrel"), "--what", what, "--paper", "letter", "--out", file])).toBe(0);
      expect(fs.readFileSync(file).subarray(0, 5).toString()).toBe("%PDF-");
    }
    expect(await main(["print", demo("rain-barrel"), "--what", "poster", "--out", path.join(dir, "x.pdf")])).toBe(2);
    expect(err).toContain("--what poster: choose from plan, learner");
    expect(await main(["print", demo("rain-barrel"), "--paper", "a3", "--out", path.join(dir, "x.pdf")])).toBe(2);
    expect(fs.existsSync(path.join(dir, "x.pdf"))).toBe(false);
  });
  it("ranks the boards", async () => {
    expect(await main(["boards", demo("rain-barrel"), "--json"])).toBe(0);
    const list = JSON.parse(out);
    expect(list).toHaveLength(34);
    const of = (id: string) => list.find((b: { board: string }) => b.board === id);
    expect(of("board/atmega328p-long")).toMatchObject({ fits: true, current: true, overdriven: 0 });
    // The echo sensor's 5 V would overdrive it, and the display's pull-ups.
    expect(of("board/rp2040-forty")).toMatchObject({ fits: true, overdriven: 2 });
    // No second bus line reaches a header of eight legs.
    expect(of("chip/attiny13a-dip8")).toMatchObject({ fits: false });
    expect(list.at(-1).board).toBe("chip/attiny13a-dip8");
    // Whatever works as it is comes before whatever needs something.
    const trouble = list.flatMap((b: { fits: boolean; stops: number; faults: number }) =>
      b.fits ? [b.stops + b.faults] : [],
    );
    expect(trouble).toEqual([...trouble].sort((a, b) => a - b));
    // No 5 V comes out of this board's pins, and the USB port is taken by its cable.
    expect(of("board/nrf52840-compact")).toMatchObject({ unfed: ["Water echo", "Display"], faults: 2 });
  });
  it("takes only so long where it is told so: the best until then, and what was not reached is said", async () => {
    const moss = demo("moss-terrarium");
    expect(await main(["boards", moss, "--json", "--seconds", "0.05"])).toBe(0);
    const tried = (JSON.parse(out) as unknown[]).length;
    expect(tried).toBeLessThan(34);
    expect(err).toContain(`the time was enough for ${tried} of 34 boards`);
    out = err = "";
    // A placement that nobody had time to make better has every part on it all the same.
    const placed = async (...more: string[]) => {
      out = "";
      await main(["place", demo("rain-barrel"), "--json", ...more]);
      return JSON.parse(out) as { parts: { ref: string }[]; wire_mm: number };
    };
    const [quick, whole] = [await placed("--seconds", "0.001"), await placed()];
    expect(quick.parts.map((x) => x.ref).sort()).toEqual(whole.parts.map((x) => x.ref).sort());
    expect(quick.wire_mm).toBeGreaterThanOrEqual(whole.wire_mm);
    out = "";
    expect(await main(["assign", moss, "--json", "--seconds", "2"])).toBe(0);
    expect(JSON.parse(out)).toMatchObject({ status: "optimal" });
    for (const verb of ["assign", "boards", "place"]) {
      err = "";
      expect(await main([verb, moss, "--seconds", "soon"]), verb).toBe(2);
      expect(err).toContain("--seconds soon: a number above 0 and up to 3600 is needed");
    }
  });
  it("plans into a folder, whole, and refuses one that is not empty", async () => {
    const target = path.join(dir, "out");
    expect(await main(["plan", demo("rain-barrel"), "--out", target, "--target", "sketch"])).toBe(0);
    const files = fs.readdirSync(target).sort();
    expect(files).toEqual([
      ".lattice-plan.json",
      "breadboard.svg",
      "checks.csv",
      "cuts.csv",
      "findings.json",
      "firmware",
      "holes.csv",
      "netlist.json",
      "parts.csv",
      "plan.md",
      "plan.pdf",
      "plan.svg",
      "project.lattice.json",
      "solderboard.csv",
      "tools.csv",
      "wires.csv",
    ]);
    expect(fs.readFileSync(path.join(target, "plan.pdf")).subarray(0, 5).toString()).toBe("%PDF-");
    expect(await main(["plan", demo("rain-barrel"), "--out", target])).toBe(2);
    expect(err).toContain("not empty");
    fs.mkdirSync(path.join(target, "firmware/sketch/starter"), { recursive: true });
    fs.writeFileSync(path.join(target, "firmware/sketch/starter/wlan.h"), "mine");
    fs.writeFileSync(path.join(target, "notes.txt"), "x");
    expect(await main(["plan", demo("moss-terrarium"), "--out", target, "--force"])).toBe(3);
    // What the plan did not write is the person's, and stays; what only the earlier plan had goes.
    expect(fs.readFileSync(path.join(target, "notes.txt"), "utf8")).toBe("x");
    expect(fs.readFileSync(path.join(target, "firmware/sketch/starter/wlan.h"), "utf8")).toBe("mine");
    expect(err).toContain("kept, as no plan wrote it: firmware/sketch/starter/wlan.h, notes.txt");
    expect(fs.existsSync(path.join(target, "firmware/micropython/pins.py"))).toBe(true);
    expect(await main(["plan", demo("rain-barrel"), "--out", path.join(dir, "x"), "--target", "micropython"])).toBe(2);
    expect(err).toContain("too little memory");
    expect(fs.readdirSync(dir)).toEqual(["out"]);
  });
  it("replaces only a folder that a plan wrote, never one that somebody stands in", async () => {
    const foreign = path.join(dir, "photos");
    fs.mkdirSync(foreign);
    fs.writeFileSync(path.join(foreign, "beach.jpg"), "sand");
    expect(await main(["plan", demo("rain-barrel"), "--out", foreign, "--force"])).toBe(2);
    expect(err).toContain("no plan was written here");
    fs.writeFileSync(path.join(foreign, ".lattice-plan.json"), '{"files": 7}');
    expect(await main(["plan", demo("rain-barrel"), "--out", foreign, "--force"])).toBe(2);
    expect(fs.readdirSync(foreign).sort()).toEqual([".lattice-plan.json", "beach.jpg"]);
    for (const [where, why] of [
      [".", "the folder that you are in"],
      ["..", "the folder that you are in"],
      ["/", "the folder that you are in"],
    ] as const) {
      err = "";
      expect(await main(["plan", demo("rain-barrel"), "--out", where, "--force"]), where).toBe(2);
      expect(err).toContain(why);
    }
    const home = vi.spyOn(os, "homedir").mockReturnValue(foreign);
    err = "";
    expect(await main(["plan", demo("rain-barrel"), "--out", foreign, "--force"])).toBe(2);
    expect(err).toContain("a home is not replaced");
    home.mockRestore();
    // By another name it is the same folder.
    const link = path.join(dir, "link");
    fs.symlinkSync(process.cwd(), link);
    expect(await main(["plan", demo("rain-barrel"), "--out", link, "--force"])).toBe(2);
    // Nothing half-written is left, wherever it can't be.
    err = "";
    expect(await main(["plan", demo("rain-barrel"), "--out", path.join(foreign, "beach.jpg", "plan")])).toBe(2);
    expect(fs.readdirSync(dir).filter((f) => f.startsWith(".lattice"))).toEqual([]);
  });
  it("own code is taken out of edited files, kept when they are written anew, and never lost unsaid", async () => {
    const p = path.join(dir, "p.json");
    fs.copyFileSync(demo("rain-barrel"), p);
    const folder = path.join(dir, "plan");
    expect(await main(["plan", p, "--out", folder])).toBe(0);
    const ino = path.join(folder, "firmware/sketch/starter/starter.ino");
    const text = fs.readFileSync(ino, "utf8");
    fs.writeFileSync(ino, text.replace(/(>>> your code: loop \w+\n)/, "$1  mine();\n"));
    // Not over it without a word.
    expect(await main(["plan", p, "--out", folder])).toBe(2);
    expect(err).toMatch(/starter\.ino holds own code \(loop\) that the project has not; "adopt" takes it/);
    // Written anew it is still there, and told.
    err = "";
    expect(await main(["plan", p, "--out", folder, "--force"])).toBe(0);
    expect(err).toContain("own code of starter/starter.ino (loop) is kept");
    expect(fs.readFileSync(ino, "utf8")).toContain("  mine();\n");
    expect(await main(["adopt", folder, p])).toBe(0);
    expect(out).toContain("taken: sketch starter/starter.ino, loop: 1 line");
    expect(JSON.parse(fs.readFileSync(p, "utf8")).code).toEqual({ sketch: { loop: "mine();\n" } });
    out = "";
    expect(await main(["adopt", path.join(folder, "firmware/sketch"), p])).toBe(0);
    expect(out).toContain("nothing new");
    // Broken marks: refused, nothing changed.
    const before = fs.readFileSync(p, "utf8");
    fs.writeFileSync(ino, fs.readFileSync(ino, "utf8").replace(/.*<<< your code: loop\n/, ""));
    err = "";
    expect(await main(["adopt", folder, p])).toBe(2);
    expect(err).toMatch(/line \d+: "loop" begins here and never ends/);
    expect(await main(["plan", p, "--out", folder, "--force"])).toBe(2);
    expect(err).toContain("own code there would be lost");
    expect(fs.readFileSync(p, "utf8")).toBe(before);
    expect(await main(["adopt", path.join(dir, "none"), p])).toBe(2);
    expect(await main(["adopt", dir, p])).toBe(2);
    expect(err).toContain("no program of this project was found there");
  });
  it("says so when a board gets no program", async () => {
    const file = path.join(dir, "other.lattice.json");
    const base = catalogue.get("board/stm32f411-forty")!;
    const other = { ...base, id: "board/other", board: { ...base.board!, chip: "QX900", targets: {} } };
    const parts = [
      { ref: "B1", part: other.id },
      { ref: "D1", part: "discrete/led-red", label: "Lamp" },
    ];
    fs.writeFileSync(
      file,
      JSON.stringify({ format: "young-lattice-project", version: 1, title: "Other", parts, customParts: [other] }),
    );
    await main(["plan", file, "--out", path.join(dir, "out")]);
    expect(err).toContain("no program is written for B1: no sketch core for QX900 here");
    expect(fs.existsSync(path.join(dir, "out/firmware"))).toBe(false);
  });
  it("wires by hand: joined, cut, put between, as built; bad input changes nothing and answers 2", async () => {
    const p = demo("moss-terrarium");
    const q = path.join(dir, "q.lattice.json");
    expect(await main(["wire", p, "--between", "M3.5V", "S2.5V", "discrete/toggle", "--out", q])).toBe(0);
    expect(out).toMatch(/SW2 between S2\.5V and M3\.5V/);
    const wired = JSON.parse(fs.readFileSync(q, "utf8")) as { links: { from: string; to: string; by?: string }[] };
    expect(wired.links.filter((l) => l.by === "hand").map((l) => `${l.from} ${l.to}`)).toEqual([
      "SW2.1 S2.5V",
      "SW2.2 M3.5V",
    ]);
    out = "";
    expect(await main(["wire", p, "--cut", "display sda", "GP4", "--join", "display sda", "GP8", "--json"])).toBe(3);
    expect(JSON.parse(out)).toMatchObject({
      did: ["M2.SDA from B1.GP4", "M2.SDA to B1.GP8"],
      consequences: { lost: [], met: ["M2.SDA on B1.GP8"] },
    });
    for (const [args, says] of [
      [["--join", "M1.SDX", "GP3"], /no point "M1.SDX".*M1\.SDA/],
      [["--join", "M1.SDA"], /two points are wanted/],
      [["--join", "M1.SDA", "GP4"], /joined by a wire already/],
      [["--cut", "M1.SDA", "GP9"], /M1\.SDA is joined to B1\.GP4/],
      [["--between", "M1.SDA", "GP4", "module/nothing"], /no part module\/nothing/],
      [["--take-out", "Q7"], /no part Q7/],
      [["--turn", "B1"], /is a board/],
      [["--given", path.join(dir, "none.ino")], /can't be read/],
    ] as const) {
      err = "";
      fs.rmSync(q, { force: true });
      expect(await main(["wire", p, ...args, "--out", q]), args.join(" ")).toBe(2);
      expect(err).toMatch(says);
      expect(fs.existsSync(q)).toBe(false);
    }
    out = "";
    expect(await main(["wire", p, "--swap", "GP4", "GP5"])).toBe(3);
    expect(out).toMatch(/shortest way back/);
    out = "";
    expect(await main(["wire", p])).toBe(0);
    expect(out).toMatch(/^M1\.SDA +B1\.GP4 +SDA +i2c sda/m);
  });
  it("takes given pins over, and gives its own", async () => {
    const p = demo("moss-terrarium");
    const q = path.join(dir, "q.lattice.json");
    const program = write("old.ino", "#define TANK_LIGHT 2\nint mistButton = 14;\n#define PUMP 7\n");
    expect(await main(["wire", p, "--given", program, "--out", q])).toBe(0);
    expect(out).toMatch(/line 1: TANK_LIGHT 2: M3\.DIN goes to GP2/);
    expect(out).toMatch(/line 3: PUMP 7: Nothing in this project is called PUMP/);
    out = "";
    expect(await main(["pinmap", q])).toBe(0);
    expect(out).toMatch(/^plan [A-Z]{8}\n/);
    expect(out).toContain("PIN_TANK_LIGHT = GP2");
    out = "";
    expect(await main(["pinmap", q, "--csv"])).toBe(0);
    expect(out).toMatch(/^board,name,need,label,kind,pin,sketch,micropython,plan\r?\n/);
  });
  it("plan lays only what is open, and moves a wire only when told to", async () => {
    const parts = [
      B1,
      { ref: "S1", part: "supply/usb-port" },
      { ref: "LED1", part: "discrete/led-red" },
      { ref: "SW1", part: "discrete/button" },
    ];
    // The light on a pin of the console: a planner with a free hand would move it.
    const file = write("p.lattice.json", project(parts, [{ from: "LED1.A", to: "B1.D1" }]));
    const links = (folder: string) =>
      (
        JSON.parse(fs.readFileSync(path.join(folder, "project.lattice.json"), "utf8")) as {
          links: { from: string; to: string }[];
        }
      ).links.map((l) => `${l.from} ${l.to}`);
    await main(["plan", file, "--out", path.join(dir, "a")]);
    expect(links(path.join(dir, "a"))).toContain("LED1.A B1.D1");
    expect(links(path.join(dir, "a")).some((l) => l.startsWith("SW1.1 "))).toBe(true);
    await main(["plan", file, "--out", path.join(dir, "b"), "--replan"]);
    expect(links(path.join(dir, "b"))).not.toContain("LED1.A B1.D1");
    // A wire on a pin that can't serve it stays, is told, and does not keep the rest from being planned.
    const wrong = write(
      "wrong.lattice.json",
      project([...parts, { ref: "M1", part: "module/bme280" }], [{ from: "M1.SDA", to: "B1.D3" }]),
    );
    out = "";
    expect(await main(["plan", wrong, "--out", path.join(dir, "c")])).toBe(3);
    expect(links(path.join(dir, "c"))).toContain("M1.SDA B1.D3");
    expect(links(path.join(dir, "c")).some((l) => l.startsWith("SW1.1 "))).toBe(true);
    expect(out).toContain("pin.capability");
  });
});

describe("what a killed plan left behind", () => {
  it("is cleared by the next one beside it, and nothing else that looks like it", async () => {
    const old = new Date(Date.now() - 2 * 3_600_000);
    for (const name of [".lattice-aB3dE6", ".lattice-aB3dE6-old", ".lattice-mine-x", ".lattice-zz9zz9"]) {
      fs.mkdirSync(path.join(dir, name));
      fs.writeFileSync(path.join(dir, name, "x"), "x");
      if (name !== ".lattice-zz9zz9") fs.utimesSync(path.join(dir, name), old, old);
    }
    await writePlanFolder(path.join(dir, "plan"), { "a.txt": "a" });
    expect(fs.readdirSync(dir).sort()).toEqual([".lattice-aB3dE6-old", ".lattice-mine-x", ".lattice-zz9zz9", "plan"]);
  });
});

describe("keeping the app's data", () => {
  const data = () => {
    const folder = path.join(dir, "data");
    const db = openDatabase(folder);
    insertProject(db, "one", "One", '{"title":"One"}', "made");
    insertProject(db, "two", "Two", '{"title":"Two"}', "made");
    return { folder, db };
  };
  it("backs up while the app holds them, says what restoring would do, and does it", async () => {
    const { folder, db } = data();
    const copy = path.join(dir, "copy.sqlite");
    expect(await main(["backup", copy, "--data", folder])).toBe(0);
    expect(out).toContain("2 projects in 2 versions");
    expect(await main(["backup", copy, "--data", folder])).toBe(2);
    expect(err).toContain("is there already");
    expect(await main(["backup", copy, "--data", folder, "--force"])).toBe(0);
    deleteProject(db, "one");
    insertProject(db, "three", "Three", "{}", "made");
    out = err = "";
    expect(await main(["restore", copy, "--data", folder])).toBe(0);
    expect(out).toMatch(/comes back: One\nwould be gone: Three/);
    expect(err).toContain("nothing was changed");
    expect(
      listProjects(db)
        .map((p) => p.id)
        .sort(),
    ).toEqual(["three", "two"]);
    expect(await main(["restore", copy, "--data", folder, "--yes", "--json"])).toBe(0);
    expect(
      listProjects(db)
        .map((p) => p.id)
        .sort(),
    ).toEqual(["one", "two"]);
    db.close();
  });
  it("exports open files", async () => {
    const { folder, db } = data();
    const zip = path.join(dir, "all.zip");
    expect(await main(["export", zip, "--data", folder])).toBe(0);
    expect(Object.keys(unzipSync(fs.readFileSync(zip))).sort()).toEqual([
      "README.txt",
      "projects/one-one.lattice.json",
      "projects/two-two.lattice.json",
    ]);
    db.close();
  });
  it("begins no data where there are none, and refuses what is no backup", async () => {
    const nowhere = path.join(dir, "nowhere");
    expect(await main(["backup", path.join(dir, "x"), "--data", nowhere])).toBe(2);
    expect(err).toContain("there are no data of the app here");
    expect(fs.existsSync(nowhere)).toBe(false);
    const { folder, db } = data();
    db.close();
    expect(await main(["restore", write("bad.sqlite", "no"), "--data", folder, "--yes"])).toBe(2);
    expect(err).toContain("bad.sqlite is no backup that can be used");
    expect(await main(["backup", path.join(dir, "no/such/place"), "--data", folder])).toBe(2);
    expect(await main(["backup", dir, "--data", folder, "--force"])).toBe(2);
    expect(err).toContain("this is a folder");
  });
});
