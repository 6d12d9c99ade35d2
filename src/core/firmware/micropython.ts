import type { Circuit } from "../circuit";
import { fingerprint, houseRule } from "../project";
import { findPin } from "../parts/catalogue";
import { driverOf } from "./drivers";
import { busClock, busNumber, codeText, driverParts, pinConstants, region } from "./pins";
import { targetOf } from "./target";
import type { DriverPart, FirmwareFile } from "./types";

const indent = (text: string, by = "    ") => text.replace(/^(?=.)/gm, by);

interface Ctx {
  c: Circuit;
  host: string;
  parts: DriverPart[];
  title: string;
  /** The plan's fingerprint: the program prints it, so that sheet and program can be compared. */
  plan: string;
}

const banner = (x: Ctx, what: string) =>
  `# ${x.title}: ${what}\n# Written from wiring plan ${x.plan}. Change the plan, not the pin numbers here.\n`;

function pinsFile(x: Ctx): FirmwareFile {
  const lines = pinConstants(x.c, x.host, "micropython").map((p) => {
    const number = findPin(x.c.netlist.instance(x.host)!.part, p.hostPin)?.names?.micropython;
    return `${p.name} = ${number ?? JSON.stringify(p.code)}  # ${p.hostPin}: ${p.says}`;
  });
  return { path: "pins.py", text: `${banner(x, "pins")}\n${lines.join("\n")}\n` };
}

/** I2C objects by bus, at the clock that the checks reckon with. */
function buses(x: Ctx): string {
  const seen = new Map<string, string>();
  for (const p of x.parts) {
    const g = p.inst.part.groups.find((k) => k.kind === "i2c");
    if (!g || seen.has(p.bus)) continue;
    const hz = busClock(x.c, x.host, p.bus, (b) => b);
    const n = busNumber(p.bus);
    seen.set(
      p.bus,
      `${p.bus} = I2C(${n}, sda=Pin(pins.${p.pin(g.pins.sda!)}), scl=Pin(pins.${p.pin(g.pins.scl!)}), freq=${hz})`,
    );
  }
  return [...seen.values()].join("\n");
}

function head(x: Ctx, what: string): string {
  const drivers = [...new Set(x.parts.flatMap((p) => driverOf(p) ?? []))];
  const machine = ["Pin", ...(x.parts.some((p) => p.bus) ? ["I2C"] : [])].sort();
  const imports = new Set([
    ...drivers.flatMap((d) => d.micropython?.imports ?? []),
    ...x.parts.flatMap((p) => driverOf(p)?.micropython?.importsFor?.(p) ?? []),
  ]);
  return [banner(x, what), `from machine import ${machine.join(", ")}`, "import time", "import pins", ...imports].join(
    "\n",
  );
}

const setups = (x: Ctx) => x.parts.flatMap((p) => driverOf(p)?.micropython?.setup?.(p) ?? []).join("\n");

function scan(x: Ctx): string {
  const list = new Map<string, DriverPart[]>();
  for (const p of x.parts) if (p.address) list.set(p.bus, [...(list.get(p.bus) ?? []), p]);
  return [...list]
    .map(([bus, parts]) => {
      const want = parts.map((p) => p.address!).join(", ");
      return `found = ${bus}.scan()
print(
    "YL1 scan ${x.host} bus=${bus} found=%s want=${want.replace(/, /g, ",")} %s"
    % (",".join("0x%02x" % a for a in found), judge(all(a in found for a in (${want},))))
)`;
    })
    .join("\n");
}

function bringup(x: Ctx): FirmwareFile {
  const sorted = [...x.parts].sort((a, b) => (driverOf(a)?.order ?? 99) - (driverOf(b)?.order ?? 99));
  const tests = sorted.flatMap((p) => driverOf(p)?.micropython?.bringup?.(p) ?? []).join("\n");
  return {
    path: "bringup.py",
    text: `${head(x, "bring-up, proves each part by itself")}

score = [0, 0]


def judge(ok):
    score[0 if ok else 1] += 1
    return "ok" if ok else "fail"


print("YL1 hello ${x.host} chip=${codeText(x.c.netlist.instance(x.host)!.part.board!.chip)} plan=${x.plan} info")
${buses(x)}
${setups(x)}
${scan(x)}
${tests}
print("YL1 done parts=%d ok=%d fail=%d %s" % (sum(score), score[0], score[1], "fail" if score[1] else "ok"))
`,
  };
}

function starter(x: Ctx): FirmwareFile {
  const tasks = x.parts.flatMap((p) => {
    const t = driverOf(p)?.micropython?.task?.(p, x.parts);
    return t ? [{ p, ...t }] : [];
  });
  const simple = houseRule(x.c.project, "programStyle") === "delays";
  const functions = tasks.map((t) => `\n\ndef ${t.p.id}_task():\n${indent(t.body)}`).join("");
  const own = (name: string) => `# >>> your code: ${name}\n${region(x.c, "micropython", name)}# <<< your code: ${name}`;
  const table = tasks.map((t) => `    [0, ${t.every_ms}, ${t.p.id}_task],`).join("\n");
  const loop = simple
    ? `while True:\n${tasks.map((t) => `    ${t.p.id}_task()`).join("\n")}\n${indent(own("loop"))}\n    time.sleep_ms(50)`
    : `TASKS = [\n${table}\n]\n\nwhile True:
    now = time.ticks_ms()
    for task in TASKS:
        if time.ticks_diff(now, task[0]) >= 0:
            task[0] = time.ticks_add(now, task[1])
            task[2]()
${indent(own("loop"))}`;
  return {
    path: "main.py",
    text: `${head(x, "starter; nothing in the loop waits")}

${buses(x)}
${setups(x)}

${own("globals")}${functions}

print("YL1 plan ${x.host} id=${x.plan} info")


${loop}
`,
  };
}

/** Below this no MicroPython is built for a chip. */
const LEAST_RAM_KB = 16;

/** MicroPython files: pins, bring-up, a non-blocking main and small driver modules. */
export const micropython = targetOf({
  id: "micropython",
  name: "MicroPython",
  says: "main.py, bringup.py, pins.py and lib/ to copy onto the board",
  unfit: ({ board }) => {
    if (board!.targets.micropython) return null;
    return board!.ram_kB < LEAST_RAM_KB
      ? `${board!.chip} has too little memory for MicroPython`
      : `no MicroPython program is written for ${board!.chip} here`;
  },
  files: (c, host) => {
    const x: Ctx = {
      c,
      host,
      parts: driverParts(c, host, "micropython", (b) => b),
      title: codeText(c.project.title) || "Project",
      plan: fingerprint(c.project),
    };
    const libs = new Map(x.parts.flatMap((p) => driverOf(p)?.micropython?.lib ?? []).map((l) => [l.path, l.text]));
    return [pinsFile(x), bringup(x), starter(x), ...[...libs].map(([path, text]) => ({ path, text }))].map((f) => ({
      path: f.path,
      text: `${f.text
        .replace(/[ \t]+$/gm, "")
        .replace(/\n{4,}/g, "\n\n\n")
        .trimEnd()}\n`,
    }));
  },
});
